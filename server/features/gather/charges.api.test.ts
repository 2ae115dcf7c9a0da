import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chargesOf, freeChargeOf, ownReceipt, revisionsOf, take } from '../../../test/fixtures/gathering.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let tomas: Client;
let leilani: Client;
beforeAll(async () => {
  api = await startApi('charges');
  [tomas, leilani] = await Promise.all([api.as('tomas.brandao'), api.as('leilani.kahue')]);
});
afterAll(() => api.close());

describe('what a holder says of a charge', () => {
  it('is marked with where it was claimed and taken back, each with its event, by the holder alone', async () => {
    const charge = await freeChargeOf(tomas);
    const say = (person: Client, revision: number, reason: string | null) =>
      person.put(`/charges/${charge.id}/mark`, { revision, reason });
    expect((await say(leilani, 1, 'Mine')).status).toBe(404);
    const marked = await say(tomas, charge.revision, 'On paper in March');
    const now = marked.body.charges.find((c: { id: string }) => c.id === charge.id);
    expect(now).toMatchObject({ state: 'claimed already', reason: 'On paper in March', revision: charge.revision + 1 });
    expect((await say(tomas, charge.revision, null)).body.code).toBe('stale');
    expect((await take(tomas, { charge: charge.id })).body.code).toBe('charge-in-use');
    expect((await say(tomas, now.revision, null)).status).toBe(200);
    const events = await api
      .owner('events')
      .where({ record_kind: 'charge', record_id: charge.id })
      .orderBy('seq')
      .pluck('kind');
    expect(events).toEqual(['marked as claimed already', 'mark taken back']);
  });
});

describe('a card of another entity', () => {
  const entity = (id: string) => api.owner('cards').where({ id: '4433' }).update({ entity_id: id });

  it('puts nothing on a claim of this one', async () => {
    const receipt = await ownReceipt(tomas, '7.70', true);
    const { number } = (await take(tomas, { receipt, category: 'meal' })).body;
    const charge = await freeChargeOf(tomas);
    await entity('JP');
    const taken = await take(tomas, { charge: charge.id, category: 'meal' });
    const pair = { lines: [{ claim: number, line: '1' }], charge: charge.id, takeAmount: true };
    const paired = await tomas.post('/pairs', { revisions: await revisionsOf(tomas), pairs: [pair] });
    await entity('IE');
    expect([taken.body.code, paired.body.code]).toEqual(['other-entity', 'other-entity']);
    expect(await api.owner('lines').where({ charge_id: charge.id })).toEqual([]);
  });
});

describe('what is left of a charge when one of its lines is unpaired', () => {
  it('is divided anew among the others', async () => {
    const [{ id }] = await api
      .owner('charges')
      .insert({
        card_id: '4433',
        booked_on: '2026-01-05',
        purchased_on: '2026-01-05',
        amount: 1000,
        currency: 'USD',
        settled_amount: 923,
        settled_currency: 'EUR',
        merchant: 'Pier One',
      })
      .returning('id');
    const { number } = (await take(tomas, { charge: String(id), category: 'meal' })).body;
    const key = { claim_id: (await api.owner('claims').where({ number }).first()).id, version: 1 };
    const line = await api
      .owner('lines')
      .where({ ...key, id: '1' })
      .first();
    await api
      .owner('lines')
      .where({ ...key, id: '1' })
      .update({ amount: 500 });
    await api.owner('lines').insert({
      ...line,
      id: '2',
      position: 1,
      amount: 500,
      attendees: null,
      fields: '{}',
      coding: '{}',
      before_pair: null,
      settled_amount: 1,
    });
    const parts = async () => (await api.owner('lines').where(key).orderBy('id')).map((l) => l.settled_amount);
    const unpaired = await tomas.post('/pairs/undo', {
      revisions: await revisionsOf(tomas),
      lines: [{ claim: number, line: '1' }],
      what: 'charge',
    });
    expect([unpaired.status, await parts()]).toEqual([200, [null, 462n]]);
  });
});

describe('a charge divided between two claims', () => {
  it('gives both their part of what the bank took, and assesses both, each with its event', async () => {
    const charge = await freeChargeOf(tomas);
    const receipt = await ownReceipt(tomas, '1.00', true);
    const first = (await take(tomas, { receipt, category: 'meal' })).body.number as string;
    const lines = [{ claim: first, line: '1' }];
    const whole = await take(tomas, { charge: charge.id, category: 'meal' });
    const second = whole.body.number as string;
    const half = {
      revision: (await revisionsOf(tomas))[second]!,
      set: { amount: { amount: '1.00', currency: 'EUR' } },
    };
    expect((await tomas.put(`/drafts/${second}/lines/1`, half)).body.code).toBe('bank-facts');
    await api
      .owner('lines as l')
      .whereRaw(`claim_id = (select id from claims where number = ?)`, [second])
      .update({ amount: api.owner.raw('amount - 100') });
    const paired = await tomas.post('/pairs', {
      revisions: await revisionsOf(tomas),
      pairs: [{ lines, charge: charge.id }],
    });
    expect(paired.status).toBe(200);
    const parts = await api.owner('lines').where({ charge_id: charge.id }).select('settled_amount');
    const taken = (await api.owner('charges').where({ id: charge.id }).first()).settled_amount;
    expect(parts.reduce((a, p) => a + p.settled_amount, 0n)).toBe(taken);
    for (const number of [first, second]) {
      const events = api.owner('events').where({ record_kind: 'claim', record_id: number });
      const last = await events.orderBy('seq', 'desc').first();
      expect(last.kind).toBe('paired');
      const claim = await api.owner('claims').where({ number }).first();
      const stored = await api.owner('assessments').where({ claim_id: claim.id }).first();
      expect([stored.revision, JSON.parse(last.facts).revision]).toEqual([claim.revision, claim.revision]);
    }
  });
});

describe('a charge or receipt that is not free', () => {
  const mark = (charge: { id: string; revision: number }, reason: string | null) =>
    tomas.put(`/charges/${charge.id}/mark`, { revision: charge.revision, reason });
  const pair = async (one: object, line = '1') =>
    tomas.post('/pairs', {
      revisions: await revisionsOf(tomas),
      pairs: [{ lines: [{ claim: 'C-1031', line }], ...one }],
    });

  it('is not said to be claimed before while it is on a claim', async () => {
    const used = (await chargesOf(tomas)).find((c) => c.state === 'on a claim')!;
    expect((await mark(used, 'On paper')).body.code).toBe('charge-in-use');
  });
  it('is not paired once it was claimed before', async () => {
    const charge = await freeChargeOf(tomas);
    expect((await mark(charge, 'On paper')).status).toBe(200);
    expect((await pair({ charge: charge.id, takeAmount: true })).body.code).toBe('charge-in-use');
  });
  it('is not taken twice, nor paired with a line while a submitted claim has it', async () => {
    const receipt = await ownReceipt(tomas, '13.10', true);
    const { number } = (await take(tomas, { receipt, category: 'meal' })).body;
    expect((await take(tomas, { receipt, category: 'meal' })).body).toMatchObject({
      code: 'receipt-in-use',
      numbers: { claim: number },
    });
    await api
      .owner('claims')
      .where({ number })
      .update({ state: 'in review', submitted_version: 1, submitted_on: '2026-03-03' });
    expect((await pair({ receipt })).body).toMatchObject({ code: 'receipt-in-use', numbers: { claim: number } });
  });
});

describe('what is asked for without sense', () => {
  it('says what is missing of a line to be made', async () => {
    const ask = (one: object, purpose: string | null = 'Tried out') =>
      tomas.post('/drafts/lines', { claim: null, purpose, take: [one] });
    const receipt = await ownReceipt(tomas, '13.20', true);
    expect((await ask({})).body.code).toBe('nothing-chosen');
    expect((await ask({ receipt })).body.code).toBe('category-missing');
    expect((await ask({ receipt, category: 'meal' }, null)).body.code).toBe('purpose-missing');
  });
  it('puts no charge of nothing on a claim', async () => {
    const days = { booked_on: '2026-01-07', purchased_on: '2026-01-07' };
    const money = { amount: 0, currency: 'EUR', settled_amount: 0, settled_currency: 'EUR' };
    const row = { card_id: '4433', ...days, ...money, merchant: 'Pier One' };
    const [{ id }] = await api.owner('charges').insert(row).returning('id');
    expect((await take(tomas, { charge: String(id), category: 'meal' })).body.code).toBe('charge-empty');
  });
  it('numbers a line once, and puts it at the end, whatever was taken off', async () => {
    const receipt = async (total: string) => ({ receipt: await ownReceipt(tomas, total, true), category: 'meal' });
    const { number } = (await take(tomas, await receipt('21.10'))).body as { number: string };
    const add = async (total: string) => {
      const claim = { number, revision: (await revisionsOf(tomas))[number]! };
      expect((await take(tomas, await receipt(total), claim)).status).toBe(201);
    };
    const remove = async (line: string) =>
      tomas.send('DELETE', `/drafts/${number}/lines/${line}?revision=${(await revisionsOf(tomas))[number]}`);
    await add('21.20');
    await add('21.30');
    expect((await remove('1')).status).toBe(200);
    expect((await remove('3')).status).toBe(200);
    await add('21.40');
    const { id: claim_id } = await api.owner('claims').where({ number }).first();
    const lines = await api.owner('lines').where({ claim_id }).orderBy('position');
    expect(lines.map((l) => [l.id, l.amount])).toEqual([
      ['2', 2120n],
      ['4', 2140n],
    ]);
  });
  it('refuses two items of one name', async () => {
    const receipt = await ownReceipt(tomas, '22.00', true);
    const { number } = (await take(tomas, { receipt, category: 'meal' })).body as { number: string };
    const item = { id: 'a', amount: '11.00', category: 'meal', tax: [] };
    const revision = (await revisionsOf(tomas))[number];
    const twice = await tomas.put(`/drafts/${number}/lines/1`, { revision, set: { items: [item, item] } });
    expect([twice.status, twice.body.code]).toEqual([400, 'invalid']);
  });
  it('finds no line, month or book that is not there', async () => {
    const { 'C-1031': revision } = await revisionsOf(tomas);
    const set = { amount: { amount: '1.00', currency: 'EUR' } };
    expect((await tomas.put('/drafts/C-1031/lines/99', { revision, set })).body.code).toBe('not-found');
    const pairs = [{ lines: [{ claim: 'C-1031', line: '99' }], charge: (await freeChargeOf(tomas)).id }];
    expect((await tomas.post('/pairs', { revisions: { 'C-1031': revision }, pairs })).body.code).toBe('not-found');
    for (const month of ['2026-13', '2026-1', 'x'])
      expect((await tomas.get(`/cards/4433/months/${month}`)).body.code).toBe('not-found');
  });
  it('takes no amount with more decimals than its currency has', async () => {
    const receipt = await ownReceipt(tomas, '13.30', true);
    const { number } = (await take(tomas, { receipt, category: 'meal' })).body;
    const change = async (amount: string, currency: string) =>
      tomas.put(`/drafts/${number}/lines/1`, {
        revision: (await revisionsOf(tomas))[number],
        set: { amount: { amount, currency } },
      });
    expect((await change('13.305', 'EUR')).body.code).toBe('decimals');
    expect((await change('13.5', 'JPY')).body.code).toBe('decimals');
    expect((await change('13', 'JPY')).status).toBe(200);
  });
});
