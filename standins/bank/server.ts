import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { statementOf, type Book } from './book.ts';
import { passDay } from './nights.ts';
import { writeCamt053 } from './write.ts';

/**
 * What the bank can be made to do wrong: `late` holds the newest delivery back until the next night, `twice` delivers
 * the same day again under another id, `disorder` lists the newest first, `cut` breaks a delivery off in the middle,
 * `total` states a closing balance that does not agree.
 */
export const FAULTS = ['late', 'twice', 'disorder', 'cut', 'total'] as const;
export type Fault = (typeof FAULTS)[number];

interface Delivery {
  id: string;
  day: string;
}
export interface Bank {
  book: Book;
  deliveries: Delivery[];
  fault: Fault | null;
  /** Called after every night, to keep what happened. */
  keep?: () => void;
}

/**
 * Its small API, JSON unless said otherwise:
 *   GET /deliveries            the nights delivered so far: [{ id, day }]
 *   GET /deliveries/:id        that night, all cards, as camt.053 (XML)
 *   POST /nights { day }       a night passes
 *   PUT /fault { fault }       what goes wrong from now on; null ends it
 */
export function createBank(bank: Bank): Server {
  return createServer((req, res) => {
    void answer(bank, req, res).catch(() => {
      if (!res.headersSent) res.writeHead(500);
      res.end();
    });
  });
}

async function answer(bank: Bank, req: IncomingMessage, res: ServerResponse): Promise<void> {
  const { pathname } = new URL(req.url ?? '/', 'http://bank');
  const id = /^\/deliveries\/([\w-]+)$/.exec(pathname)?.[1];
  if (req.method === 'GET' && pathname === '/deliveries') return json(res, 200, listed(bank));
  if (req.method === 'GET' && id) return deliver(bank, id, res);
  if (req.method === 'POST' && pathname === '/nights') {
    const { day } = JSON.parse(await bodyOf(req)) as { day?: unknown };
    if (typeof day !== 'string' || !/^\d{4}-\d{2}-\d{2}$/.test(day))
      return json(res, 400, { says: 'day must be YYYY-MM-DD' });
    passNight(bank, day);
    return json(res, 201, listed(bank));
  }
  if (req.method === 'PUT' && pathname === '/fault') {
    const { fault } = JSON.parse(await bodyOf(req)) as { fault?: unknown };
    if (fault !== null && !FAULTS.includes(fault as Fault))
      return json(res, 400, { says: `fault must be null or one of ${FAULTS.join(', ')}` });
    bank.fault = fault as Fault | null;
    return json(res, 200, { fault });
  }
  json(res, 404, { says: 'there is nothing here' });
}

export function passNight(bank: Bank, day: string): void {
  if (bank.deliveries.some((d) => d.day === day)) return;
  passDay(bank.book, day);
  bank.deliveries.push({ id: `D-${day}`, day });
  bank.keep?.();
}

function listed(bank: Bank): Delivery[] {
  const { deliveries, fault } = bank;
  const newest = deliveries.at(-1);
  if (fault === 'late') return deliveries.slice(0, -1);
  if (fault === 'twice' && newest) return [...deliveries, { id: `${newest.id}-again`, day: newest.day }];
  return fault === 'disorder' ? [...deliveries].reverse() : deliveries;
}

function deliver(bank: Bank, id: string, res: ServerResponse): void {
  const delivery = listed(bank).find((d) => d.id === id);
  if (!delivery) return json(res, 404, { says: 'no such delivery' });
  const statements = bank.book.cards.map((card) => statementOf(bank.book, card.id, delivery.day, delivery.day));
  if (bank.fault === 'total') statements[0]!.owedAfter += 100;
  const text = Buffer.from(writeCamt053(statements, `${delivery.day}T23:59:59${id.endsWith('again') ? '.5' : ''}`));
  res.writeHead(200, { 'content-type': 'application/xml; charset=utf-8', 'content-length': text.length });
  if (bank.fault !== 'cut') return void res.end(text);
  res.write(text.subarray(0, Math.floor(text.length * 0.6)));
  setTimeout(() => res.destroy(), 20);
}

function json(res: ServerResponse, status: number, value: unknown): void {
  res.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(value));
}

async function bodyOf(req: IncomingMessage): Promise<string> {
  let text = '';
  for await (const part of req) {
    text += String(part);
    if (text.length > 10_000) throw new Error('too long');
  }
  return text || '{}';
}
