import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { draftOfReceipt, revisionsOf } from '../../../test/fixtures/gathering.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** A figure never changes currency by keeping its digits. */
let api: TestApi;
let tomas: Client;
beforeAll(async () => {
  api = await startApi('currency');
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

async function begun(total: string) {
  const { number, key } = await draftOfReceipt(api, tomas, total);
  const set = async (changes: object) =>
    tomas.put(`/drafts/${number}/lines/1`, { revision: (await revisionsOf(tomas))[number], set: changes });
  const line = () =>
    api
      .owner('lines')
      .where({ ...key, id: '1' })
      .first();
  const parts = async () => ({
    taxes: (await api.owner('tax_entries').where(key)).length,
    items: (await api.owner('items').where(key)).length,
    shares: (await api.owner('shares').where(key)).length,
  });
  return { number, key, set, line, parts };
}
const pair = async (number: string, charge: string, more = {}) =>
  tomas.post('/pairs', {
    revisions: await revisionsOf(tomas),
    pairs: [{ lines: [{ claim: number, line: '1' }], charge, ...more }],
  });
async function chargeOf(amounts: { amount: number; currency: string; settled: number }): Promise<string> {
  const days = { booked_on: '2026-01-06', purchased_on: '2026-01-06' };
  const settled = { settled_amount: amounts.settled, settled_currency: 'EUR' };
  const row = {
    card_id: '4433',
    ...days,
    amount: amounts.amount,
    currency: amounts.currency,
    ...settled,
    merchant: 'Pier',
  };
  const [{ id }] = await api.owner('charges').insert(row).returning('id');
  return String(id);
}

describe('a line that is stated in another currency', () => {
  it('loses its taxes and the amounts of its split, and keeps what is by percent', async () => {
    const { set, key, parts } = await begun('40.00');
    await api.owner('tax_entries').insert({ ...key, line_id: '1', position: 0, code: 'IE-23', gross: 4000, tax: 330 });
    await api.owner('shares').insert({ ...key, line_id: '1', position: 0, coding: '{}', value: '100' });
    await api.owner('lines').where(key).update({ split_by: 'percent' });
    expect((await set({ amount: { amount: '41.00', currency: 'EUR' } })).status).toBe(200);
    expect(await parts()).toEqual({ taxes: 1, items: 0, shares: 1 });
    expect((await set({ amount: { amount: '41.00', currency: 'USD' } })).status).toBe(200);
    expect(await parts()).toEqual({ taxes: 0, items: 0, shares: 1 });
    await api.owner('lines').where(key).update({ split_by: 'amount' });
    expect((await set({ amount: { amount: '41.00', currency: 'EUR' } })).status).toBe(200);
    expect(await parts()).toEqual({ taxes: 0, items: 0, shares: 0 });
  });
  it('loses its items and takes the category of the first', async () => {
    const { set, line, parts } = await begun('50.00');
    const item = (id: string, amount: string, category: string) => ({ id, amount, category, tax: [] });
    expect((await set({ items: [item('a', '20.00', 'lodging'), item('b', '30.00', 'meal')] })).status).toBe(200);
    expect(await parts()).toMatchObject({ items: 2 });
    expect((await set({ amount: { amount: '50.00', currency: 'USD' } })).status).toBe(200);
    expect(await parts()).toEqual({ taxes: 0, items: 0, shares: 0 });
    expect((await line()).category).toBe('lodging');
  });
});

describe('a line paired with a charge', () => {
  it('in the bank’s currency takes the purchase’s, and its taxes go', async () => {
    const { number, key, line, parts } = await begun('50.50');
    await api.owner('tax_entries').insert({ ...key, line_id: '1', position: 0, code: 'IE-23', gross: 5050, tax: 417 });
    expect((await pair(number, await chargeOf({ amount: 5471, currency: 'USD', settled: 5050 }))).status).toBe(200);
    expect(await line()).toMatchObject({ amount: 5471n, currency: 'USD', settled_amount: 5050n });
    expect((await parts()).taxes).toBe(0);
    await tomas.post('/pairs/undo', {
      revisions: await revisionsOf(tomas),
      lines: [{ claim: number, line: '1' }],
      what: 'charge',
    });
    expect(await line()).toMatchObject({ amount: 5050n, currency: 'EUR', charge_id: null });
  });
  it('in a foreign currency keeps its amount and takes the bank’s as the rate of the card', async () => {
    const { number, set, line } = await begun('51.50');
    await set({ amount: { amount: '54.71', currency: 'USD' } });
    const charge = await chargeOf({ amount: 5050, currency: 'EUR', settled: 5050 });
    expect((await pair(number, charge)).body.code).toBe('pair-differs');
    expect((await pair(number, charge, { takeAmount: true })).status).toBe(200);
    expect(await line()).toMatchObject({
      amount: 5471n,
      currency: 'USD',
      rate_kind: 'card',
      settled_amount: 5050n,
      settled_currency: 'EUR',
    });
    const { ties } = (await tomas.get(`/claims/${number}`)).body;
    if (ties) expect(ties.find((t: any) => t.line === '1' && t.kind === 'card')?.state ?? 'tied').not.toBe('off');
  });
});
