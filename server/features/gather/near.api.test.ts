import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { draftOfReceipt, ownReceipt, revisionsOf, take } from '../../../test/fixtures/gathering.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** Pairs a person would see though something differs, and one line that is several charges. */
let api: TestApi;
let tomas: Client;
beforeAll(async () => {
  api = await startApi('near');
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

async function begun(total: string) {
  const { key, ...draft } = await draftOfReceipt(api, tomas, total);
  return { ...draft, lines: () => api.owner('lines').where(key).orderBy('position') };
}
async function charge(amount: number, more: object = {}): Promise<string> {
  const row = {
    card_id: '4433',
    booked_on: '2026-03-03',
    purchased_on: '2026-03-02',
    amount,
    currency: 'EUR',
    settled_amount: amount,
    settled_currency: 'EUR',
    merchant: 'GATHER CAFE',
    ...more,
  };
  const [{ id }] = await api.owner('charges').insert(row).returning('id');
  return String(id);
}
const proposed = async (number: string) =>
  (await tomas.get('/pairs')).body.proposals.charges.find((p: { left: string[] }) => p.left[0] === `${number}/1`);
const accept = async (number: string, more: object) =>
  tomas.post('/pairs', {
    revisions: await revisionsOf(tomas),
    pairs: [{ lines: [{ claim: number, line: '1' }], ...more }],
  });

describe('a proposal', () => {
  it('names the tip that was added later, and takes the bank’s amount', async () => {
    const { number, lines } = await begun('38.10');
    const id = await charge(4210);
    expect(await proposed(number)).toMatchObject({ right: [id], differs: '4.00 EUR more, as a tip would be' });
    expect((await accept(number, { charge: id, takeAmount: true })).status).toBe(200);
    expect(await lines()).toMatchObject([{ amount: 4210n, charge_id: BigInt(id) }]);
  });

  it('of a charge whose bank tells only its own currency goes by the published rate', async () => {
    const { number, lines } = await begun('51.30');
    await tomas.put(`/drafts/${number}/lines/1`, {
      revision: (await revisionsOf(tomas))[number],
      set: { amount: { amount: '51.30', currency: 'USD' }, date: '2026-11-20' },
    });
    const [{ rate }] = await api
      .owner('rates')
      .where({ from_currency: 'EUR', to_currency: 'USD' })
      .whereBetween('date', ['2026-11-14', '2026-11-20'])
      .orderBy('date', 'desc')
      .limit(1)
      .select('rate');
    const taken = Math.round(5130 / Number(rate)) + 60;
    const id = await charge(taken, { purchased_on: '2026-11-20', booked_on: '2026-11-21' });
    const pair = await proposed(number);
    expect(pair.right).toEqual([id]);
    expect(pair.differs).toMatch(/ EUR at the rate of the day, 1(\.\d)? % apart$/);
    expect((await accept(number, { charge: id, takeAmount: true })).status).toBe(200);
    expect(await lines()).toMatchObject([
      { amount: 5130n, currency: 'USD', settled_amount: BigInt(taken), settled_currency: 'EUR' },
    ]);
  });

  it('goes by what the bank took for another charge where no rate is published', async () => {
    const { number } = await begun('88.00');
    await tomas.put(`/drafts/${number}/lines/1`, {
      revision: (await revisionsOf(tomas))[number],
      set: { amount: { amount: '5000', currency: 'XOF' }, date: '2026-11-20' },
    });
    const id = await charge(765, { purchased_on: '2026-11-20', booked_on: '2026-11-21' });
    expect(await proposed(number)).toBeUndefined();
    const days = { purchased_on: '2026-11-18', booked_on: '2026-11-19' };
    const other = { merchant: 'Elsewhere', currency: 'XOF', settled_amount: 1524, settled_currency: 'EUR' };
    await charge(10_000, { ...days, ...other });
    expect(await proposed(number)).toMatchObject({
      right: [id],
      differs: "7.62 EUR at the bank's own rate of 2026-11-18, 0.3 % apart",
    });
  });
});

describe('one line that is two charges', () => {
  it('is parted among them, and undoing makes it one again', async () => {
    const { number, lines } = await begun('60.20');
    const [a, b] = [await charge(4000), await charge(2020, { purchased_on: '2026-03-03' })];
    expect(await proposed(number)).toMatchObject({ left: [`${number}/1`], differs: null });
    expect((await proposed(number)).right.sort()).toEqual([a, b].sort());
    expect((await accept(number, { charges: [a, b] })).status).toBe(200);
    expect(await lines()).toMatchObject([
      { id: '1', amount: 4000n, charge_id: BigInt(a), settled_amount: 4000n, paid_by: 'card' },
      { id: '2', amount: 2020n, charge_id: BigInt(b), settled_amount: 2020n, paid_by: 'card', category: 'meal' },
    ]);
    const undo = await tomas.post('/pairs/undo', {
      revisions: await revisionsOf(tomas),
      lines: [{ claim: number, line: '2' }],
      what: 'charge',
    });
    expect(undo.status).toBe(200);
    expect(await lines()).toMatchObject([{ id: '1', amount: 6020n, charge_id: null, paid_by: 'own' }]);
  });

  it('is never one charge twice', async () => {
    const { number, lines } = await begun('44.60');
    const half = await charge(2230);
    expect((await accept(number, { charges: [half, half] })).status).toBe(400);
    expect(await lines()).toMatchObject([{ amount: 4460n, charge_id: null }]);
  });

  it('is refused when they do not add up to it, or one is on a line', async () => {
    const { number, lines } = await begun('70.30');
    const [a, b, c] = [await charge(5000), await charge(2030), await charge(2031)];
    const differs = await accept(number, { charges: [a, c] });
    expect([differs.status, differs.body.code]).toEqual([422, 'pair-differs']);
    expect((await take(tomas, { charge: b, category: 'meal' })).status).toBe(201);
    const used = await accept(number, { charges: [a, b] });
    expect([used.status, used.body.code]).toEqual([409, 'charge-in-use']);
    expect(await lines()).toHaveLength(1);
  });
});

describe('a line that has a charge', () => {
  it('takes no other one, nor several', async () => {
    const { number, lines } = await begun('33.30');
    const [own, other, a, b] = [await charge(3330), await charge(3331), await charge(3000), await charge(330)];
    expect((await accept(number, { charge: own })).status).toBe(200);
    const again = [
      await accept(number, { charge: other, takeAmount: true }),
      await accept(number, { charges: [a, b] }),
    ];
    expect(again.map((r) => [r.status, r.body.code])).toEqual([
      [422, 'pair-taken'],
      [422, 'pair-taken'],
    ]);
    expect(await lines()).toMatchObject([{ charge_id: BigInt(own) }]);
  });
  it('is one of the claims that are named, for several charges too', async () => {
    const { number } = await begun('33.40');
    const charges = [await charge(3000), await charge(340)];
    const pairs = [{ lines: [{ claim: number, line: '7' }], charges }];
    const { body } = await tomas.post('/pairs', { revisions: await revisionsOf(tomas), pairs });
    expect([body.code, body.numbers]).toEqual(['not-found', { what: 'line' }]);
  });
});

describe('a receipt on a line', () => {
  it('gets the slip that came later, and the line keeps both papers', async () => {
    const { number, receipt, lines } = await begun('81.40');
    const slip = await ownReceipt(tomas, '81.41', false);
    const receipts = (await tomas.get('/receipts')).body.receipts as { id: string; revision: number }[];
    const seen = [receipt, slip].map((id) => ({ id, revision: receipts.find((r) => r.id === id)!.revision }));
    const { status, body } = await tomas.post('/receipts/combine', { receipts: seen });
    expect(status).toBe(201);
    expect(await lines()).toMatchObject([{ receipt_id: BigInt(body.made[0]) }]);
    const made = (await tomas.get('/receipts')).body.receipts.find((r: { id: string }) => r.id === body.made[0]);
    expect(made).toMatchObject({ confirmed: { amount: '81.40' }, usedOn: [{ claim: number, line: '1' }] });
    expect(made.pages).toHaveLength(2);
  });
});
