import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { handIn, viewOf } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { picture, sendFile } from '../../../test/fixtures/sendFile.ts';

/** Lines that come again, are divided, charged on, or take a receipt that is dropped on them. */
let api: TestApi;
let tomas: Client;
let hedda: Client;
let number: string;
beforeAll(async () => {
  api = await startApi('again');
  tomas = await api.as('tomas.brandao');
  hedda = await api.as('hedda.vestergaard');
});
afterAll(() => api.close());
const PLAIN = { costCentre: '410', fund: '10' };
const today = new Date().toISOString().slice(0, 10);
beforeEach(async () => {
  ({ number } = (await tomas.post('/drafts', { purpose: 'Tern count', coding: PLAIN })).body);
});

const view = (of = number, who = tomas) => viewOf(who, of);
const revision = async (of = number) => (await view(of)).claim.revision as number;
const line = (fields = {}) => ({
  date: addDays(today, -20),
  amount: { amount: '100.00', currency: 'EUR' },
  category: 'supplies',
  ...fields,
});
const write = async (...lines: object[]) =>
  tomas.post(`/drafts/${number}/lines`, { revision: await revision(), lines });
const linesOf = (answer: any) => answer.body.document.lines.map((l: any) => [l.id, l.category, l.amount]);

describe('a line that comes again', () => {
  const repeat = async (fields = {}) =>
    tomas.post(`/drafts/${number}/lines/1/repeat`, {
      revision: await revision(),
      every: 'week',
      until: null,
      ...fields,
    });
  const due = async (of = number, who = tomas) => (await who.get(`/drafts/${of}/recurring`)).body.lines;
  const deal = async (id: string, on: string, take: boolean, of = number) =>
    tomas.post(`/drafts/${of}/recurring/${id}`, { revision: await revision(of), on, take });
  beforeEach(() => api.owner('recurring_lines').delete());

  it('does not end before it would come again', async () => {
    await write(line());
    const refused = await repeat({ until: addDays(today, -14) });
    expect([refused.body.code, refused.body.numbers.path]).toEqual(['invalid', 'until']);
    expect((await repeat({ until: addDays(today, -13) })).status).toBe(200);
  });

  it('is proposed when it is due, on any claim of its claimant, and put on none unasked', async () => {
    await write(line({ merchant: 'Quay phones', split: { by: 'equal', shares: [{ coding: {} }, { coding: {} }] } }));
    const again = await repeat();
    expect(again.body.document.lines).toHaveLength(1);
    const next = (await tomas.post('/drafts', { purpose: 'Next', coding: PLAIN })).body.number;
    const [one] = await due(next);
    expect(one).toMatchObject({ every: 'week', until: null, due: [addDays(today, -13), addDays(today, -6)] });
    const taken = await deal(one.id, addDays(today, -13), true, next);
    const [made] = taken.body.document.lines;
    expect(made).toMatchObject({ date: addDays(today, -13), amount: '100.00', merchant: 'Quay phones' });
    expect(made.split.shares).toHaveLength(2);
    expect((await due(next))[0].due).toEqual([addDays(today, -6)]);
    const passed = await deal(one.id, addDays(today, -6), false, next);
    expect(passed.body.document.lines).toHaveLength(1);
    expect((await due(next))[0].due).toEqual([]);
  });

  it('is dealt with once: what was taken on one claim is not taken on another', async () => {
    await write(line());
    await repeat();
    const [one] = await due();
    expect((await deal(one.id, one.due[0], true)).status).toBe(200);
    const other = (await tomas.post('/drafts', { purpose: 'Other', coding: PLAIN })).body.number;
    expect((await deal(one.id, one.due[0], true, other)).body.code).toBe('recurring-dealt');
    expect((await deal(one.id, addDays(one.due[1], 7), true, other)).body.code).toBe('recurring-dealt');
    expect((await view(other)).document.lines).toEqual([]);
  });

  it('ends on its last day, and when its person says so', async () => {
    await write(line());
    await repeat({ until: addDays(today, -13) });
    const [one] = await due();
    expect(one.due).toEqual([addDays(today, -13)]);
    await deal(one.id, one.due[0], false);
    expect((await due())[0].due).toEqual([]);
    expect((await deal(one.id, addDays(today, -6), true)).body.code).toBe('recurring-dealt');
    const ended = await tomas.send('DELETE', `/drafts/${number}/recurring/${one.id}?revision=${await revision()}`);
    expect(ended.status).toBe(200);
    expect(await due()).toEqual([]);
    expect((await repeat({ until: addDays(today, -20) })).body).toMatchObject({ code: 'invalid' });
    expect((await repeat({ every: 'century' })).status).toBe(400);
  });

  it('is known to the makers of a claim, and of the claimant’s own lines alone', async () => {
    await write(line());
    await repeat();
    const [one] = await due();
    const maeve = await api.as('maeve.tarrant');
    expect((await maeve.get(`/drafts/${number}/recurring`)).status).toBe(404);
    const hers = (await hedda.post('/drafts', { purpose: 'Hers', coding: PLAIN })).body.number;
    expect(await due(hers, hedda)).toEqual([]);
    const stolen = await hedda.post(`/drafts/${hers}/recurring/${one.id}`, { revision: 1, on: one.due[0], take: true });
    expect(stolen.status).toBe(404);
    const removed = await hedda.send('DELETE', `/drafts/${hers}/recurring/${one.id}?revision=1`);
    expect(removed.status).toBe(404);
    // what was prepared for him by somebody else proposes his
    const his = (await hedda.post('/drafts', { purpose: 'His', claimant: 'P05', coding: PLAIN })).body.number;
    expect((await due(his, hedda)).map((l: any) => l.id)).toEqual([one.id]);
  });

  it('is kept by nobody more often than can be looked through', async () => {
    await write(line());
    const row = { person_id: 'P05', every: 'week', first_on: today, next_on: today, line: JSON.stringify(line()) };
    await api.owner('recurring_lines').insert(Array.from({ length: 100 }, () => row));
    expect((await repeat()).body.code).toBe('many-kept');
  });

  it('is none that a card paid', async () => {
    await write(line());
    const { id } = await api.owner('claims').where({ number }).first('id');
    const card = { paid_by: 'card', rate_kind: 'card', settled_amount: 10000, settled_currency: 'EUR' };
    await api.owner('lines').where({ claim_id: id }).update(card);
    expect((await repeat()).body.code).toBe('not-repeatable');
    expect(
      (await tomas.post(`/drafts/${number}/lines/9/repeat`, { revision: await revision(), every: 'week', until: null }))
        .status,
    ).toBe(404);
  });
});

describe('a receipt over several lines', () => {
  const part = (amount: string, category: string | null, description: string | null = null) => ({
    amount,
    category,
    description,
  });
  const divide = async (id: string, ...parts: object[]) =>
    tomas.post(`/drafts/${number}/lines/${id}/parts`, { revision: await revision(), parts });

  it('makes a line of each part, on the same receipt, and what is left is not claimed', async () => {
    const tax = [{ code: 'IE-23' }];
    const split = {
      by: 'amount',
      shares: [
        { coding: {}, value: '60.00' },
        { coding: {}, value: '40.00' },
      ],
    };
    await write(line({ tax, split, merchant: 'Mercer’s' }), line({ amount: { amount: '7.00', currency: 'EUR' } }));
    const paper = await sendFile(tomas, '/receipts', await picture(1));
    const id = paper.body.added[0].id;
    await tomas.put(`/drafts/${number}/lines/1/receipt`, { revision: await revision(), receipt: id });
    const parts = [part('61.00', 'supplies', 'Rope'), part('30.00', 'meal', 'Lunch')];
    expect((await divide('9', ...parts)).body.code).toBe('not-found');
    const divided = await divide('1', ...parts);
    expect(linesOf(divided)).toEqual([
      ['1', 'supplies', '61.00'],
      ['2', 'supplies', '7.00'],
      ['3', 'meal', '30.00'],
    ]);
    const { document, receipts } = divided.body;
    expect([receipts['1'].id, receipts['3'].id, receipts['2']]).toEqual([id, id, undefined]);
    expect(document.lines.map((l: any) => [l.merchant, l.tax?.length ?? 0, l.split ?? null, l.description])).toEqual([
      ['Mercer’s', 0, null, 'Rope'],
      [null, 0, null, null],
      ['Mercer’s', 0, null, 'Lunch'],
    ]);
  });

  it('keeps shares by percent, and what is charged on', async () => {
    const split = {
      by: 'percent',
      shares: [
        { coding: { fund: '10' }, value: '50' },
        { coding: { fund: '20' }, value: 'rest' },
      ],
    };
    await write(line({ split, rebill: { to: 'Reed Trust', markup: '5' } }));
    const { lines } = (await divide('1', part('60.00', 'supplies'), part('40.00', 'meal'))).body.document;
    expect(lines[1].split).toEqual(split);
    expect(lines[1].rebill).toEqual({ to: 'Reed Trust', markup: '5' });
  });

  it('says of itself what the whole said, where it has its category', async () => {
    await write(line({ category: 'rail', fields: { route: 'A to B' } }));
    const { lines } = (await divide('1', part('60.00', 'rail'), part('40.00', 'meal'))).body.document;
    expect(lines.map((l: any) => l.fields?.route ?? null)).toEqual(['A to B', null]);
  });

  it('of a computed amount is typed', async () => {
    await write(line({ quantity: { count: '4', unitPrice: '25' } }));
    const divided = await divide('1', part('60.00', 'supplies'), part('40.00', 'meal'));
    expect(divided.body.document.lines.map((l: any) => l.quantity ?? null)).toEqual([null, null]);
    expect(divided.body.findings.filter((f: any) => f.code === 'computed-off')).toEqual([]);
  });

  it('is refused for what has items, has one part, is no amount, or is not there', async () => {
    const items = [{ id: '1a', amount: '100.00', category: 'meal' }];
    await write(line({ items, category: null }), line());
    const two = [part('60.00', 'supplies'), part('40.00', 'meal')];
    expect((await divide('1', ...two)).body.code).toBe('not-divisible');
    expect((await divide('2', part('60.00', 'supplies'))).status).toBe(400);
    expect((await divide('2', part('60.001', 'supplies'), part('1.00', 'meal'))).body.numbers.path).toBe(
      'parts.0.amount',
    );
    expect((await divide('9', ...two)).status).toBe(404);
    for (const amount of ['0.00', '-5.00'])
      expect((await divide('2', part('60.00', 'supplies'), part(amount, 'meal'))).body.numbers.path).toBe(
        'parts.1.amount',
      );
  });

  it('of a charge comes to the charge, which is divided with it', async () => {
    const { body } = await tomas.get('/charges');
    const open = body.charges.find((c: any) => c.state === 'open' && c.currency === 'EUR');
    const take = [{ charge: open.id, category: 'supplies' }];
    const taken = await tomas.post('/drafts/lines', { claim: null, purpose: 'By card', take });
    expect(taken.body).toEqual({ number: expect.any(String) });
    const claim = taken.body.number;
    const minor = Math.round(Number(open.amount) * 100);
    const written = (n: number) => (n / 100).toFixed(2);
    const parts = (first: number, second: number) => [part(written(first), 'supplies'), part(written(second), 'meal')];
    const post = async (body: object[]) =>
      tomas.post(`/drafts/${claim}/lines/1/parts`, { revision: await revision(claim), parts: body });
    expect((await post(parts(100, minor - 200))).body.code).toBe('parts-differ');
    const divided = await post(parts(100, minor - 100));
    const settled = divided.body.document.lines.map((l: any) => Math.round(Number(l.rate.settled.amount) * 100));
    expect(settled.reduce((a: number, s: number) => a + s, 0)).toBe(Math.round(Number(open.settled.amount) * 100));
    expect(divided.body.document.lines.map((l: any) => l.paidBy)).toEqual(['card', 'card']);
  });
});

describe('a receipt that is put on a line', () => {
  const put = (id: string, of: string, rev: number, who = tomas) =>
    who.put(`/drafts/${of}/lines/1/receipt`, { revision: rev, receipt: id });
  it('is one’s own, on this claim alone, and takes the place of the one before', async () => {
    await write(line());
    const [a, b] = [
      await sendFile(tomas, '/receipts', await picture(2)),
      await sendFile(tomas, '/receipts', await picture(3)),
    ];
    const [first, second] = [a.body.added[0].id, b.body.added[0].id];
    expect((await put(first, number, await revision())).body.receipts['1'].id).toBe(first);
    expect((await put(second, number, await revision())).body.receipts['1'].id).toBe(second);
    const other = (await tomas.post('/drafts', { purpose: 'Other', coding: PLAIN })).body.number;
    await tomas.post(`/drafts/${other}/lines`, { revision: 1, lines: [line()] });
    expect((await put(second, other, 2)).body.code).toBe('receipt-in-use');
    expect(
      (await tomas.put(`/drafts/${number}/lines/9/receipt`, { revision: await revision(), receipt: first })).status,
    ).toBe(404);
    // whoever prepares for him puts papers of their own on his lines, not his
    const his = (await hedda.post('/drafts', { purpose: 'His', claimant: 'P05', coding: PLAIN })).body.number;
    await hedda.post(`/drafts/${his}/lines`, { revision: 1, lines: [line()] });
    expect((await put(first, his, 2, hedda)).status).toBe(404);
    const hers = (await sendFile(hedda, '/receipts', await picture(4))).body.added[0].id;
    expect((await put(hers, his, 2, hedda)).body.receipts['1'].id).toBe(hers);
  });
});

describe('a line that is charged on', () => {
  it('says to whom and how much, to its makers, its approver and finance, and is paid as it was', async () => {
    await write(line({ rebill: { to: 'Reed Trust', markup: '12.5' } }), line());
    const mine = await view();
    expect(mine.rebilled).toEqual({ '1': '112.50' });
    expect(mine.settlement.toPay).toBe('200.00');
    await handIn(tomas, number);
    expect((await view(number, await api.as('siobhan.odowd'))).rebilled).toEqual({ '1': '112.50' });
    const maeve = await view(number, await api.as('maeve.tarrant'));
    expect(maeve.assessment.lines.map((l: any) => l.rebilled)).toEqual(['112.50', undefined]);
  });
});

describe('taxes and shares in preparation', () => {
  it('stand in the view as they were computed, of lines that have some', async () => {
    const split = { by: 'equal', shares: [{ coding: {} }, { coding: {} }, { coding: {} }] };
    await write(line({ country: 'IE', tax: [{ code: 'IE-23' }], split }), line());
    const { parts } = await view();
    expect(Object.keys(parts)).toEqual(['1']);
    const [whole] = parts['1'];
    expect([whole.tax[0].net, whole.tax[0].tax]).toEqual(['81.30', '18.70']);
    expect(whole.shares.map((s: any) => s.gross)).toEqual(['33.34', '33.33', '33.33']);
  });
});
