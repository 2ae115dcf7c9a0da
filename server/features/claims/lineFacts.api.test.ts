import { parse } from 'csv-parse/sync';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { LineEdit } from '../../../contract/drafts.ts';
import type { Line } from '../../../core/documents/case.schema.ts';
import type { Db } from '../../platform/db/connect.ts';
import { copyVersion } from '../../records/claims/claims.queries.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** Every fact that can be written on a line goes the whole way: onto the claim, into a copy, the next version and the file. */
let api: TestApi;
let tomas: Client;
beforeAll(async () => {
  api = await startApi('line_facts');
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

type Set = LineEdit['set'];
const AMOUNT = { amount: '40.00', currency: 'EUR' };
const half = (costCentre: string) => ({ value: '50', coding: { costCentre } });
/** For each fact a line that has it; with `shown` where the line says it by another name. A new fact is asked for by the compiler. */
const LINES: { [Fact in keyof Required<Set>]: { category: string; has: Set; shown?: Partial<Line> } } = {
  date: { category: 'supplies', has: { date: '2026-10-05' } },
  amount: { category: 'supplies', has: { amount: AMOUNT }, shown: AMOUNT },
  category: { category: 'supplies', has: { category: 'supplies' } },
  merchant: { category: 'supplies', has: { merchant: 'Quay Café' } },
  description: { category: 'supplies', has: { description: 'Rings' } },
  country: { category: 'supplies', has: { country: 'NO' } },
  paidBy: { category: 'supplies', has: { paidBy: 'central' } },
  coding: { category: 'supplies', has: { coding: { costCentre: '420', fund: '10' } } },
  tax: { category: 'supplies', has: { tax: [{ code: 'IE-23', tax: '2.00' }] } },
  split: {
    category: 'supplies',
    has: { split: { by: 'percent', shares: [half('410'), half('420')] } as never },
  },
  items: {
    category: 'supplies',
    has: {
      items: [
        { id: 'a', category: 'supplies', amount: '30.00' },
        { id: 'b', category: 'meal', amount: '10.00' },
      ] as never,
    },
    shown: {},
  },
  quantity: { category: 'supplies', has: { quantity: { count: '4', unitPrice: '10.00' } } },
  nights: { category: 'lodging', has: { nights: 2 } },
  attendees: { category: 'meal', has: { attendees: { count: 2, names: ['Ana Reis', 'Tomás Brandão'] } } },
  fields: { category: 'rail', has: { fields: { route: 'Dublin to Wexford' } } },
  journey: { category: 'mileage', has: { journey: { vehicle: 'car', distance: '10', unit: 'km' } as never } },
  stay: { category: 'allowance', has: { stay: [{ date: '2026-10-05', country: 'NO' }] as never } },
  estimate: { category: 'supplies', has: { estimate: null }, shown: {} },
  rebill: { category: 'supplies', has: { rebill: { to: 'Harbour Trust', markup: '5' } } },
};
const facts = Object.entries(LINES);
const lineOf = ({ category, has }: (typeof facts)[number][1]) => ({
  date: '2026-10-04',
  amount: AMOUNT,
  category,
  ...has,
});

const viewOf = async (number: string) => (await tomas.get(`/claims/${number}`)).body;
const revisionOf = async (number: string) => (await viewOf(number)).claim.revision as number;
async function begun(more: object = {}): Promise<string> {
  const { body } = await tomas.post('/drafts', { purpose: 'Every fact', ...more });
  return body.number;
}
/** What each fact says on the lines of a claim, in the order above. */
async function said(number: string): Promise<unknown[]> {
  const { document } = await viewOf(number);
  const lines: Line[] = (document.claim ?? document).lines;
  return facts.map(([fact], i) => [fact, lines[i]?.[fact as keyof Line] ?? null]);
}

it('is on the claim, in its copy, in the version after it came back, and in the file of its lines', async () => {
  const number = await begun();
  const lines = facts.map(([, one]) => lineOf(one));
  const written = await tomas.post(`/drafts/${number}/lines`, { revision: await revisionOf(number), lines });
  expect(written.status, JSON.stringify(written.body)).toBe(200);
  const first = await said(number);
  facts.forEach(([fact, { has, shown }], i) => {
    const expected = shown ?? has;
    const line = written.body.document.lines[i];
    expect([fact, line]).toMatchObject([fact, expected]);
  });
  expect(written.body.document.lines[facts.findIndex(([f]) => f === 'items')].items).toHaveLength(2);

  expect(await said(await begun({ copyOf: number }))).toEqual(first);

  const { id: claim_id } = await api.owner('claims').where({ number }).first('id');
  await api.owner.transaction((trx) => copyVersion(trx as unknown as Db, { claim_id, version: 1 }));
  for (const table of ['lines', 'items', 'tax_entries', 'shares']) {
    const of = async (version: number) =>
      (await api.owner(table).where({ claim_id, version })).map((row) => ({ ...row, version: 0 }));
    expect([table, (await of(2)).length, await of(2)]).toEqual([
      table,
      (await of(1)).length,
      expect.arrayContaining(await of(1)),
    ]);
  }

  const rows = parse(String((await tomas.get(`/claims/${number}/lines.csv`)).body), { bom: true, columns: true });
  const cell = (fact: string, column: string) =>
    (rows as Record<string, string>[])[facts.findIndex(([f]) => f === fact)]![column];
  expect(
    ['merchant', 'description', 'country', 'paidBy', 'nights', 'attendees', 'fields', 'quantity'].map((f) =>
      cell(f, f),
    ),
  ).toEqual(['Quay Café', 'Rings', 'NO', 'central', '2', '2', 'Dublin to Wexford', '4']);
  expect([cell('journey', 'distance'), cell('stay', 'days'), cell('rebill', 'chargedOnTo')]).toEqual([
    '10',
    '1',
    'Harbour Trust',
  ]);
});
