import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { PDFDocument, StandardFonts } from 'pdf-lib';
import { addDays } from '../core/numbers/isoDate.ts';
import { fromMinor, toMinor } from '../core/numbers/amount.ts';
import type { Context } from '../server/platform/context.ts';
import type { Db } from '../server/platform/db/connect.ts';
import { insertFile, insertReading, insertReceipt } from '../server/records/receipts/receipts.queries.ts';
import { importStatements } from '../server/features/statements/import.service.ts';
import { inspect } from '../server/platform/outside/reading/inspect.ts';
import { readStatements } from '../server/platform/outside/statements/readStatements.ts';
import { statementOf, type Book, type Purchase } from '../standins/bank/book.ts';
import { passDay } from '../standins/bank/nights.ts';
import type { Bank } from '../standins/bank/server.ts';
import { writeCamt053 } from '../standins/bank/write.ts';
import type { ClaimSeed } from './claims/claim.types.ts';
import { drawSlip } from './drawReceipt.ts';
import { cards } from './cards.ts';

const HISTORY_DAYS = 75;
/** The newest nights are left for the feed to fetch. */
const NIGHTS_LEFT = 2;

/**
 * Cards with what the bank says was bought on them: what the claims' card lines are about, and purchases nobody has
 * claimed yet. Whole months come as one statement a card, the current month night by night, as the feed brings them.
 */
export async function loadCards(context: Context, claims: readonly ClaimSeed[], day: string): Promise<Book> {
  const { db } = context;
  await insertCards(db);
  const book: Book = {
    cards: cards.map(({ id, currency, owed, ...c }) => ({ id, currency, owed, idle: 'idle' in c })),
    purchases: purchasesOfClaims(claims, day),
  };
  const first = addDays(day, -HISTORY_DAYS);
  for (let d = first; d < day; d = addDays(d, 1)) passDay(book, d);
  const bank: Pick<Bank, 'book' | 'deliveries'> = { book, deliveries: [] };
  await takeMonths(context, book, first, day);
  const nights = Array.from({ length: 31 }, (_, i) => addDays(`${day.slice(0, 7)}-01`, i)).filter((d) => d < day);
  for (const [i, night] of nights.entries()) {
    bank.deliveries.push({ id: `D-${night}`, day: night });
    if (i < nights.length - NIGHTS_LEFT) await take(context, book, `D-${night}`, night, night);
  }
  if (process.env.BANK_FILE) writeFileSync(process.env.BANK_FILE, JSON.stringify(bank));
  return book;
}

const insertCards = (db: Db) =>
  db('cards').insert(
    cards.map(({ id, entity_id, holder_id, kind, currency, label }) => ({
      id,
      digits: id,
      account: accountOf(id),
      entity_id,
      holder_id,
      kind,
      currency,
      label,
    })),
  );

/** One statement for each whole month from the one of a day to the one before another. */
async function takeMonths(context: Context, book: Book, first: string, day: string): Promise<void> {
  const begin = `${first.slice(0, 7)}-01`;
  for (let from = begin; from < `${day.slice(0, 7)}-01`; from = addDays(`${addDays(from, 31).slice(0, 7)}-01`, 0)) {
    const to = addDays(`${addDays(from, 31).slice(0, 7)}-01`, -1);
    await take(context, book, `M-${from.slice(0, 7)}`, from, to);
  }
}

async function take(context: Context, book: Book, name: string, from: string, to: string): Promise<void> {
  const text = writeCamt053(
    book.cards.map((c) => statementOf(book, c.id, from, to)),
    `${to}T23:59:59`,
  );
  const read = readStatements(text);
  if (!read?.ok) throw new Error('the bank writes what can be read');
  await importStatements(
    context,
    { source: 'feed', name, format: read.format, original: Buffer.from(text), by: null },
    read.statements,
  );
}

const minor = (amount: string, currency: string): number => Number(toMinor(amount, currency));

function purchasesOfClaims(claims: readonly ClaimSeed[], day: string): Purchase[] {
  return claims.flatMap((claim) =>
    claim.lines.flatMap((line, i) => {
      if (line.by !== 'card') return [];
      const on = addDays(addDays(day, -claim.daysAgo), line.day);
      const [settled, currency] = line.settled!;
      return [
        {
          reference: referenceOf(claim.number, i),
          card: line.card!,
          purchasedOn: on,
          bookedOn: on,
          settled: minor(settled, currency),
          charged: { amount: minor(line.amount, line.currency!), currency: line.currency! },
          merchant: line.merchant.toUpperCase(),
          country: line.country,
          categoryCode: line.category === 'lodging' || line.items ? '7011' : '5812',
        },
      ];
    }),
  );
}

const referenceOf = (claim: string, line: number): string => `${claim.replace('-', '')}L${line + 1}`;

/** The number under which the bank keeps a card. */
const accountOf = (card: string): string => `SALTMARSHCARD${card}`;

/** The charge a claim's card line is about. */
export async function chargeOf(db: Db, claim: string, line: number): Promise<bigint | null> {
  return (
    (
      await db('charges')
        .where({ reference: referenceOf(claim, line) })
        .first('id')
    )?.id ?? null
  );
}

/** What a claimant has gathered and not yet put on a claim: some of it belongs to charges of the card, none is read yet. */
export async function loadGathered({ db, clock }: Context, book: Book, day: string): Promise<void> {
  const owner = 'P05';
  const mine = book.purchases
    .filter((p) => p.card === '4433' && p.bookedOn < addDays(day, -NIGHTS_LEFT))
    .sort((a, b) => (a.bookedOn < b.bookedOn ? 1 : -1));
  const [first, second] = [mine[0]!, mine[1]!];
  const euro = (p: Purchase) => fromMinor(BigInt(p.settled), 'EUR');
  const add = async (name: string, bytes: Buffer) => {
    const file = await inspect(bytes);
    if (!file.ok || file.kind === 'parcel') throw new Error(`${name} is a receipt`);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    await insertFile(db, sha256, bytes, file);
    await insertReceipt(db, { owner_id: owner, sha256, added_at: clock.now(), name, came_in: null });
    await insertReading(db, sha256, clock.now());
  };
  await add('quay-stores.jpg', await drawSlip(first.merchant, first.purchasedOn, euro(first), 2));
  await add('photo-0412.jpg', await drawSlip(second.merchant, second.purchasedOn, euro(second), -3));
  await add('lunch.jpg', await drawSlip('The Salted Samphire', addDays(day, -4), '27.40', 1));
  await add('ferry-ticket.pdf', await ticket(addDays(day, -6)));
}

async function ticket(date: string): Promise<Buffer> {
  const pdf = await PDFDocument.create();
  pdf.setCreationDate(new Date(`${date}T00:00:00Z`));
  pdf.setModificationDate(new Date(`${date}T00:00:00Z`));
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const page = pdf.addPage([420, 300]);
  const rows: [string, string][] = [
    ['South Wall Ferries Ltd', ''],
    ['VAT No. IE8256796U', ''],
    ['', ''],
    [`Date: ${date}`, 'Ticket 55012'],
    ['Adult return', '38.00'],
    ['Bicycle', '6.00'],
    ['Total EUR', '44.00'],
    ['Paid by card ************4433', '44.00'],
  ];
  rows.forEach(([left, right], i) => {
    const size = i === 0 ? 18 : 12;
    page.drawText(left, { x: 30, y: 260 - i * 26, size, font });
    page.drawText(right, { x: 390 - font.widthOfTextAtSize(right, 12), y: 260 - i * 26, size: 12, font });
  });
  return Buffer.from(await pdf.save());
}

/** A draft whose lines were typed on the day; the charges came later. */
export function draftOf(book: Book, day: string): ClaimSeed {
  const mine = book.purchases
    .filter((p) => p.card === '4433' && p.bookedOn < addDays(day, -NIGHTS_LEFT))
    .sort((a, b) => (a.bookedOn < b.bookedOn ? 1 : -1));
  const start = addDays(day, -30);
  const at = (p: Purchase) => Math.max(0, Math.round((Date.parse(p.purchasedOn) - Date.parse(start)) / 86_400_000));
  const typed = (p: Purchase, amount: number, text: string, category: string) => ({
    day: at(p),
    category,
    by: 'card' as const,
    card: '4433',
    amount: fromMinor(BigInt(amount), 'EUR'),
    country: 'IE',
    merchant: p.merchant[0] + p.merchant.slice(1).toLowerCase(),
    text,
    receipt: null,
  });
  const [, , third, fourth, fifth] = mine;
  return {
    number: 'C-1031',
    claimant: 'P05',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Sluice gates at Rosslare, autumn round',
    daysAgo: 30,
    days: 28,
    state: 'draft',
    coding: { costCentre: '410', fund: '10', project: 'REED-11' },
    lines: [
      typed(third!, third!.settled, 'For the crew', 'supplies'),
      typed(fourth!, fourth!.settled, 'Team lunch', 'meal'),
      typed(fifth!, Math.floor(fifth!.settled * 0.7), 'First part of the bill', 'supplies'),
      typed(fifth!, fifth!.settled - Math.floor(fifth!.settled * 0.7), 'Second part of the bill', 'meal'),
    ],
  };
}
