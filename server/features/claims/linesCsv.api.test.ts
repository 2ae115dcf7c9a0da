import { parse } from 'csv-parse/sync';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
beforeAll(async () => {
  api = await startApi('lines');
});
afterAll(() => api.close());

const fetchCsv = async (mail: string, number: string) => {
  const client = await api.as(mail);
  const answer = await client.get(`/claims/${number}/lines.csv`);
  return {
    ...answer,
    rows: () => parse(String(answer.body), { bom: true, columns: true }) as Record<string, string>[],
  };
};

it('lines go out as a table, the same for whoever sees the claim', async () => {
  const finance = await fetchCsv('maeve.tarrant', 'C-1011');
  expect(finance.headers.get('content-type')).toContain('text/csv');
  const rows = finance.rows();
  expect(rows.map((r) => [r.line, r.amount, r.currency, r.claimAmount, r.estimate, r.receipt])).toEqual([
    ['1', '8340', 'JPY', '8340', '1', 'yes'],
    ['2', '5400', 'JPY', '5400', '2', 'yes'],
    ['3', '21560', 'JPY', '21560', '3', 'yes'],
  ]);
  expect(rows[0]).toMatchObject({ merchant: 'Seto Rail Counter', category: 'rail', project: 'FLAT-07', private: 'no' });
  expect((await fetchCsv('ren.isshiki', 'C-1011')).rows()).toEqual(rows);
  expect((await fetchCsv('tomas.brandao', 'C-1011')).status).toBe(404);
});

it('what a spreadsheet would take for a formula does not become one', async () => {
  const tomas = await api.as('tomas.brandao');
  const { number } = (await tomas.post('/drafts', { purpose: 'Formulas' })).body;
  const line = { date: '2026-11-02', amount: { amount: '-9.00', currency: 'EUR' }, category: 'supplies' };
  await tomas.post(`/drafts/${number}/lines`, {
    revision: 1,
    lines: [{ ...line, merchant: '=1+1', description: 'a, "b"' }],
  });
  const [row] = (await fetchCsv('tomas.brandao', number)).rows();
  expect(row).toMatchObject({ merchant: "'=1+1", description: 'a, "b"', amount: '-9.00' });
});
