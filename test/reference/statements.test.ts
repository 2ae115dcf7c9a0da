import * as iso20022 from 'iso20022.js';
import { Parser as Mt940 } from 'mt940js';
import { parse as parseOfx } from 'ofx-js';
import { describe, expect, it } from 'vitest';
import type { Mapping } from '../../contract/statements.ts';
import { proposeMapping } from '../../server/platform/outside/statements/columns/proposeMapping.ts';
import { readTable } from '../../server/platform/outside/statements/csv.ts';
import { entriesOfTable } from '../../server/platform/outside/statements/tableRows.ts';
import { readStatements } from '../../server/platform/outside/statements/readStatements.ts';
import { statementOf, type Book } from '../../standins/bank/book.ts';
import { writeCamt053, writeCsv, writeMt940, writeOfx } from '../../standins/bank/write.ts';

/** What the stand-in bank writes, read by general-purpose packages and by us: both have to find the same in it. */
const book: Book = {
  cards: [{ id: '4410', currency: 'EUR', owed: 10_000 }],
  purchases: [
    {
      reference: 'B1',
      card: '4410',
      purchasedOn: '2026-03-01',
      bookedOn: '2026-03-02',
      settled: 5050,
      charged: { amount: 5471, currency: 'USD' },
      merchant: 'QUAY & SONS',
      country: 'US',
      categoryCode: '5411',
    },
    {
      reference: 'B2',
      card: '4410',
      purchasedOn: '2026-03-05',
      bookedOn: '2026-03-05',
      settled: -1200,
      merchant: 'HARBOUR GIFTS',
      country: 'IE',
      categoryCode: '5947',
    },
    {
      reference: 'B3',
      card: '4410',
      purchasedOn: '2026-03-09',
      bookedOn: '2026-03-10',
      settled: 10_001,
      charged: { amount: 16_341, currency: 'JPY' },
      merchant: 'KAIGAN MART',
      country: 'JP',
      categoryCode: '5411',
    },
  ],
};
const statement = statementOf(book, '4410', '2026-03-01', '2026-03-31');
const ours = (text: string) => {
  const read = readStatements(text);
  if (!read?.ok || !read.statements[0]!.ok) throw new Error('not read');
  return read.statements[0]!.statement;
};
const EXPECTED = ['50.50', '-12.00', '100.01'];

describe('what the stand-in bank writes', () => {
  it('as camt.053 is read by iso20022.js', () => {
    const xml = writeCamt053([statement], '2026-03-31T23:59:59');
    const [theirs] = iso20022.CashManagementEndOfDayReport.fromXML(xml).statements;
    const spent = theirs!.entries.map((e: any) => (e.creditDebitIndicator === 'debit' ? e.amount : -e.amount));
    expect(spent).toEqual([5050, -1200, 10_001]);
    expect(ours(xml).entries.map((e) => e.settled)).toEqual(EXPECTED);
    expect(ours(xml).entries.map((e) => e.charged)).toEqual([
      { amount: '54.71', currency: 'USD' },
      null,
      { amount: '16341', currency: 'JPY' },
    ]);
  });

  it('as OFX is read by ofx-js', async () => {
    const text = writeOfx(statement);
    const tree: any = await parseOfx(text);
    const list = tree.OFX.CREDITCARDMSGSRSV1.CCSTMTTRNRS.CCSTMTRS;
    expect(list.BANKTRANLIST.STMTTRN.map((t: any) => t.TRNAMT)).toEqual(['-50.50', '12.00', '-100.01']);
    expect(list.BANKTRANLIST.STMTTRN.map((t: any) => t.FITID)).toEqual(ours(text).entries.map((e) => e.reference));
    expect(list.LEDGERBAL.BALAMT).toBe(ours(text).closing);
    expect(ours(text).entries.map((e) => e.settled)).toEqual(EXPECTED);
    expect(ours(text).entries.map((e) => e.charged?.amount ?? null)).toEqual(['54.71', null, '16341']);
  });

  it('as MT940 is read by mt940js, which refuses a statement that is not balanced', () => {
    const text = writeMt940(statement);
    const [theirs] = new Mt940().parse(text);
    expect(theirs.transactions.map((t: any) => -t.amount)).toEqual([50.5, -12, 100.01]);
    expect([theirs.openingBalance, theirs.closingBalance]).toEqual([-100, -238.51]);
    expect([ours(text).opening, ours(text).closing]).toEqual(['-100.00', '-238.51']);
    expect(ours(text).entries.map((e) => [e.settled, e.bookedOn, e.merchant])).toEqual([
      ['50.50', '2026-03-02', 'QUAY & SONS'],
      ['-12.00', '2026-03-05', 'HARBOUR GIFTS'],
      ['100.01', '2026-03-10', 'KAIGAN MART'],
    ]);
    expect(() => new Mt940().parse(text.replace('238,51', '238,52'))).toThrow();
  });

  it('as a table with decimal commas is read with the columns it proposes', () => {
    const read = readTable(writeCsv(statement));
    if (!read.ok) throw new Error(read.says);
    const mapping = { ...proposeMapping(read.table), order: 'dmy' } as Mapping;
    expect(entriesOfTable(read.table, mapping, { currency: 'EUR' })).toMatchObject({
      problems: [],
      entries: EXPECTED.map((settled) => ({ settled })),
    });
  });
});
