import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { drawSlip } from '../../demo/drawReceipt.ts';
import { connect, type Db } from '../../server/platform/db/connect.ts';
import { statementOf, type Book } from '../../standins/bank/book.ts';
import { createBank, passNight, type Bank } from '../../standins/bank/server.ts';
import { writeCamt053 } from '../../standins/bank/write.ts';
import { startServer, type ServerProcess } from '../fixtures/serverProcess.ts';
import type { Client } from '../fixtures/startApi.ts';
import { cloneDatabase, databaseUrl, ownerUrl } from '../fixtures/testDatabase.ts';

/** The server is killed in the middle of its work: after the next start nothing is lost and nothing is there twice. */
const NAME = 'ebbet_kill';
const NIGHTS = ['2031-03-01', '2031-03-02', '2031-03-03', '2031-03-04', '2031-03-05', '2031-03-06'];
const A_NIGHT = 600;
const A_MONTH = 3000;

const purchases = (days: readonly string[], each: number, mark: string): Book['purchases'] =>
  days.flatMap((day) =>
    Array.from({ length: each }, (_, i) => ({
      reference: `${mark}${day}-${String(i).padStart(5, '0')}`,
      card: '4410',
      purchasedOn: day,
      bookedOn: day,
      settled: 100 + i,
      merchant: 'QUAY STORES',
      country: 'IE',
      categoryCode: '5411',
    })),
  );
const bookOf = (list: Book['purchases']): Book => ({
  cards: [{ id: '4410', currency: 'EUR', owed: 0, idle: true }],
  purchases: list,
});

let owner: Db;
let env: Record<string, string>;
let bankServer: ReturnType<typeof createBank>;
const bank: Bank = { book: bookOf(purchases(NIGHTS, A_NIGHT, 'N')), deliveries: [], fault: null };
let running: ServerProcess | null = null;

beforeAll(async () => {
  await cloneDatabase('ebbet_template', NAME);
  owner = connect(databaseUrl(ownerUrl()!, NAME));
  bankServer = createBank(bank).listen(0, '127.0.0.1');
  await new Promise((resolve) => bankServer.once('listening', resolve));
  env = {
    DATABASE_APP_URL: databaseUrl(process.env.DATABASE_APP_URL!, NAME),
    BANK_URL: `http://127.0.0.1:${(bankServer.address() as AddressInfo).port}`,
  };
});
afterAll(async () => {
  await running?.kill();
  bankServer.close();
  await owner.destroy();
});

const start = async () => (running = await startServer(env));
async function until(what: string, isSo: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 6000; i += 1) {
    if (await isSo()) return;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error(`it did not come to this: ${what}`);
}
/** A transaction that has put charges in and has not committed. */
const isImporting = async () =>
  (
    await owner.raw(
      `select 1 from pg_locks where relation = 'charges'::regclass and mode = 'RowExclusiveLock' and granted`,
    )
  ).rows.length > 0;
const references = async (mark: string): Promise<string[]> =>
  (await owner('charges').where('reference', 'like', `${mark}2031%`).orderBy('reference')).map((c) => c.reference);
const give = (person: Client, path: '/receipts' | '/statements', bytes: Uint8Array, name: string) => {
  const form = new FormData();
  if (path === '/statements') form.append('options', '{}');
  form.append('file', new Blob([new Uint8Array(bytes)]), name);
  return person.send('POST', path, form);
};

describe('a server that is killed', () => {
  it('while it reads receipts loses none, and reads each once it is back', async () => {
    let server = await start();
    const tomas = await server.as('tomas.brandao');
    const totals = ['11.50', '12.60', '13.70'];
    for (const total of totals) {
      const bytes = await drawSlip('Kill Cafe', '2026-03-02', total);
      expect((await give(tomas, '/receipts', bytes, `kill-${total}.jpg`)).status).toBe(201);
    }
    const own = () =>
      owner('receipts as r')
        .join('readings as g', 'g.sha256', 'r.sha256')
        .where('r.name', 'like', 'kill-%')
        .orderBy('r.name')
        .select('r.name', 'g.state', 'g.reading');
    await until('one receipt is read and others wait', async () => {
      const states = (await own()).map((r) => r.state);
      return states.includes('read') && states.includes('waiting');
    });
    await server.kill();
    expect((await own()).filter((r) => r.state === 'waiting').length).toBeGreaterThan(0);

    server = await start();
    await until('all are read', async () => (await own()).every((r) => r.state === 'read'));
    expect((await own()).map((r) => [r.name, r.reading.amount.value])).toEqual(
      totals.map((total) => [`kill-${total}.jpg`, total]),
    );
    await server.kill();
  });

  it('while it imports a statement has taken nothing of it, and takes it once when it is given again', async () => {
    const text = writeCamt053(
      [statementOf(bookOf(purchases(['2031-02-03'], A_MONTH, 'F')), '4410', '2031-02-01', '2031-02-28')],
      '2031-02-28T00:00:00',
    );
    let server = await start();
    const sent = give(await server.as('odd.fjellheim'), '/statements', Buffer.from(text), 'month.xml').catch(
      () => 'cut off',
    );
    await until('charges are being put in', isImporting);
    await server.kill();
    expect(await sent).toBe('cut off');
    expect(await references('F')).toEqual([]);
    expect(await owner('statements').where({ name: 'month.xml' })).toEqual([]);

    server = await start();
    const odd = await server.as('odd.fjellheim');
    expect((await give(odd, '/statements', Buffer.from(text), 'month.xml')).body.outcomes[0].added).toBe(A_MONTH);
    expect((await give(odd, '/statements', Buffer.from(text), 'again.xml')).body.outcomes[0].state).toBe(
      'there already',
    );
    const all = await references('F');
    expect([all.length, new Set(all).size]).toEqual([A_MONTH, A_MONTH]);
    await server.kill();
  });

  it('while it takes the bank’s nights goes on where it was, and has each charge once', async () => {
    for (const night of NIGHTS) passNight(bank, night);
    for (let round = 0; round < 3; round += 1) {
      const server = await start();
      await until('a night is being taken', isImporting);
      await server.kill();
      const half = (await references('N')).length;
      expect(half % A_NIGHT).toBe(0);
      expect(half).toBeLessThan(NIGHTS.length * A_NIGHT);
    }
    const server = await start();
    await until('every night is taken', async () => (await references('N')).length === NIGHTS.length * A_NIGHT);
    expect(new Set(await references('N')).size).toBe(NIGHTS.length * A_NIGHT);
    await server.kill();
  });
});
