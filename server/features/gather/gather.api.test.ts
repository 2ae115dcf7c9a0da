import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { pdf } from '../../../test/fixtures/badReceipts.ts';

let api: TestApi;
let tomas: Client;
let leilani: Client;
beforeAll(async () => {
  api = await startApi('gather');
  [tomas, leilani] = await Promise.all([api.as('tomas.brandao'), api.as('leilani.kahue')]);
});
afterAll(() => api.close());

const chargesOf = async (person: Client) =>
  (await person.get('/charges')).body.charges as {
    id: string;
    revision: number;
    state: string;
    amount: string;
    category: string;
  }[];
const freeChargeOf = async (person: Client) => (await chargesOf(person)).find((c) => c.state === 'open')!;
const draft = async () => {
  const { body } = await tomas.get('/pairs');
  return { ...body, revision: body.revisions['C-1031'] as number };
};
const seen = async (person = tomas) => (await person.get('/pairs')).body.revisions as Record<string, number>;
const take = (person: Client, one: object, claim: object | null = null) =>
  person.post('/drafts/lines', { claim, purpose: claim ? null : 'Tried out', take: [one] });
const settledOf = async (...lines: string[]) =>
  (
    await api
      .owner('lines as l')
      .join('claims as c', 'c.id', 'l.claim_id')
      .where('c.number', 'C-1031')
      .whereIn('l.id', lines)
      .orderBy('l.id')
      .select('l.settled_amount as s')
  ).map((r) => (r.s === null ? null : BigInt(r.s)));

async function ownReceipt(person: Client, total: string, confirmed: boolean): Promise<string> {
  const bytes = await pdf(1, [['Gather Cafe', total]]);
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), `r-${total}.pdf`);
  const { id } = (await person.send('POST', '/receipts', form)).body.added[0];
  if (confirmed)
    await person.put(`/receipts/${id}`, {
      revision: 1,
      amount: total,
      currency: 'EUR',
      date: '2026-03-02',
      merchant: 'Gather Cafe',
    });
  return id;
}

describe('putting on a claim', () => {
  it('makes a line of a charge with the category its merchant’s code proposes, paid by card', async () => {
    const charge = await freeChargeOf(tomas);
    const { body } = await take(tomas, { charge: charge.id });
    const { lines } = (await tomas.get(`/claims/${body.number}`)).body.document;
    expect(lines).toMatchObject([{ paidBy: 'card', card: '4433', amount: charge.amount, category: charge.category }]);
    expect((await take(tomas, { charge: charge.id })).body.says).toContain(`on claim ${body.number}`);
  });

  it('makes a line of what was confirmed on a receipt, never of what was only guessed', async () => {
    const unsure = await ownReceipt(tomas, '12.10', false);
    expect((await take(tomas, { receipt: unsure, category: 'meal' })).body.says).toContain('confirm what it shows');
    const sure = await ownReceipt(tomas, '12.20', true);
    const { body } = await take(tomas, { receipt: sure, category: 'meal' });
    expect((await tomas.get(`/claims/${body.number}`)).body.document.lines).toMatchObject([
      { paidBy: 'own', amount: '12.20', currency: 'EUR', merchant: 'Gather Cafe', date: '2026-03-02' },
    ]);
  });

  it('makes one line of a receipt and its charge, private only where the card paid', async () => {
    const [receipt, charge] = [await ownReceipt(tomas, '12.30', true), await freeChargeOf(tomas)];
    expect((await take(tomas, { receipt, personal: true })).body.says).toContain('Only what was paid by company card');
    const { body } = await take(tomas, { receipt, charge: charge.id, personal: true });
    expect((await tomas.get(`/claims/${body.number}`)).body.document.lines).toMatchObject([
      { personal: true, paidBy: 'card', amount: charge.amount },
    ]);
  });

  it('is all or nothing', async () => {
    const [good, used] = [await freeChargeOf(tomas), (await chargesOf(tomas)).find((c) => c.state === 'on a claim')!];
    const before = (await tomas.get('/pairs')).body.drafts.length;
    const answer = await tomas.post('/drafts/lines', {
      claim: null,
      purpose: 'Half of it',
      take: [{ charge: good.id }, { charge: used.id }],
    });
    expect(answer.status).toBe(409);
    expect((await chargesOf(tomas)).find((c) => c.id === good.id)!.state).toBe('open');
    expect((await tomas.get('/pairs')).body.drafts).toHaveLength(before);
  });

  it('refuses what is somebody else’s as if it were not there', async () => {
    const theirs = await freeChargeOf(leilani);
    const receipt = await ownReceipt(leilani, '12.40', true);
    expect((await take(tomas, { charge: theirs.id })).status).toBe(404);
    expect((await take(tomas, { receipt, category: 'meal' })).status).toBe(404);
    const own = await freeChargeOf(leilani);
    expect((await take(leilani, { charge: own.id }, { number: 'C-1031', revision: 1 })).status).toBe(404);
  });
});

describe('pairs', () => {
  it('give two lines of one charge parts of what the bank took that add up to it, and undo brings all back', async () => {
    const view = await draft();
    const pair = view.proposals.charges.find((p: { left: string[] }) => p.left.length === 2);
    const lines = pair.left.map((ref: string) => ({ claim: 'C-1031', line: ref.split('/')[1] }));
    const pairs = [{ lines, charge: pair.right }];
    expect((await tomas.post('/pairs', { revisions: { 'C-1031': view.revision + 5 }, pairs })).status).toBe(409);
    const { status } = await tomas.post('/pairs', { revisions: { 'C-1031': view.revision }, pairs });
    expect(status).toBe(200);
    const [a, b] = await settledOf('3', '4');
    const charge = (await api.owner('charges').where({ id: pair.right }).first())!;
    expect(a! + b!).toBe(BigInt(charge.settled_amount));
    const { body } = await tomas.post('/pairs/undo', { revisions: await seen(), lines, what: 'charge' });
    expect(body.proposals.charges).toHaveLength(view.proposals.charges.length);
    expect(await settledOf('3', '4')).toEqual([null, null]);
  });

  it('of different amounts are refused with both figures, and take the bank’s on demand', async () => {
    const view = await draft();
    const charge = view.charges.find((c: { amount: string }) => c.amount !== view.lines[0].amount);
    const pair = { lines: [{ claim: 'C-1031', line: view.lines[0].line }], charge: charge.id };
    const ask = (more: object) =>
      tomas.post('/pairs', { revisions: { 'C-1031': view.revision }, pairs: [{ ...pair, ...more }] });
    const refused = await ask({});
    expect([refused.body.code, refused.body.numbers.takeable]).toEqual(['pair-differs', true]);
    expect(refused.body.says).toContain(charge.amount);
    await ask({ takeAmount: true });
    expect((await draft()).lines[0].amount).toBe(charge.amount);
    await tomas.post('/pairs/undo', { revisions: await seen(), lines: pair.lines, what: 'charge' });
    expect((await draft()).lines[0].amount).toBe(view.lines[0].amount);
  });

  it('cannot be made with what is somebody else’s', async () => {
    const { revision } = await draft();
    const theirs = await freeChargeOf(leilani);
    const lines = [{ claim: 'C-1031', line: '1' }];
    const ask = (person: Client) =>
      person.post('/pairs', { revisions: { 'C-1031': revision }, pairs: [{ lines, charge: theirs.id }] });
    expect((await ask(tomas)).status).toBe(404);
    expect((await ask(leilani)).status).toBe(404);
  });
});

describe('items of a draft’s line', () => {
  it('are kept when they add up to the line, and refused with what is left when they do not', async () => {
    const { revision, lines } = await draft();
    const { line, amount } = lines[0];
    const items = (first: string) => ({
      revision,
      set: { items: [{ id: `${line}a`, amount: first, category: 'meal' }] },
    });
    const wrong = await tomas.put(`/drafts/C-1031/lines/${line}`, items('0.01'));
    expect(wrong.body.says).toMatch(/of line 1 is left/);
    expect((await tomas.put(`/drafts/C-1031/lines/${line}`, items(amount))).status).toBe(200);
    expect((await leilani.put(`/drafts/C-1031/lines/${line}`, items(amount))).status).toBe(404);
  });
});

describe('a purchasing card’s month', () => {
  it('is closed when every charge is accounted for and the totals agree, and then stays as it is', async () => {
    const { body } = await leilani.get('/cards');
    const { month } = body.cards[0].months[1];
    const path = `/cards/4427/months/${month}`;
    expect((await tomas.get(path)).status).toBe(404);
    expect((await leilani.put(`${path}/closed`, { revision: 1 })).body.says).toMatch(/not/);
    const mine = (await leilani.get(path)).body.charges as { id: string }[];
    const { body: claim } = await leilani.post('/drafts/lines', {
      claim: null,
      purpose: 'The month',
      take: mine.map((c) => ({ charge: c.id })),
    });
    const { body: view } = await leilani.get(`/claims/${claim.number}`);
    expect(view.settlement.toPay).toBe('0.00');
    const { body: closed } = await leilani.put(`${path}/closed`, { revision: 1 });
    expect([closed.state, closed.revision, closed.may]).toEqual(['closed', 2, ['reopen']]);
    expect((await leilani.put(`${path}/closed`, { revision: 1 })).body.code).toBe('stale');
    expect((await tomas.put(`${path}/closed`, { revision: 2 })).status).toBe(404);
    const auditor = await api.as('ottoline.marchbanks');
    expect((await auditor.get(path)).body.may).toEqual([]);
    expect((await auditor.send('DELETE', `${path}/closed?revision=2`)).body.code).toBe('not-yours');
    expect([closed.closedBy, closed.proof.difference, closed.proof.problems]).toEqual(['Leilani Kahue', '0.00', []]);
    const { body: pairs } = await leilani.get('/pairs');
    const lines = [{ claim: claim.number, line: '1' }];
    const takeOff = () =>
      leilani.send('DELETE', `/drafts/${claim.number}/lines/1?revision=${pairs.revisions[claim.number]}`);
    const undo = { revisions: pairs.revisions, lines, what: 'charge' };
    for (const refused of [await takeOff(), await leilani.post('/pairs/undo', undo)])
      expect([refused.status, refused.body.code, refused.body.numbers]).toEqual([
        409,
        'month-closed',
        { card: '4427', month },
      ]);
    expect((await leilani.send('DELETE', `${path}/closed?revision=2`)).body.closedBy).toBeNull();
    const events = await api
      .owner('events')
      .where({ record_kind: 'card month', record_id: `4427/${month}` })
      .orderBy('seq')
      .pluck('kind');
    expect(events).toEqual(['closed', 'reopened']);
    expect((await takeOff()).status).toBe(200);
    expect((await leilani.get(path)).body.proof.open.count).toBe(1);
  });
});

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
  it('puts nothing on a claim of this one', async () => {
    const charge = await freeChargeOf(tomas);
    await api.owner('cards').where({ id: '4433' }).update({ entity_id: 'JP' });
    expect((await take(tomas, { charge: charge.id, category: 'meal' })).body.code).toBe('other-entity');
    await api.owner('cards').where({ id: '4433' }).update({ entity_id: 'IE' });
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
      revisions: await seen(),
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
    const half = { revision: (await seen())[second]!, set: { amount: { amount: '1.00', currency: 'EUR' } } };
    expect((await tomas.put(`/drafts/${second}/lines/1`, half)).body.code).toBe('bank-facts');
    await api
      .owner('lines as l')
      .whereRaw(`claim_id = (select id from claims where number = ?)`, [second])
      .update({ amount: api.owner.raw('amount - 100') });
    const paired = await tomas.post('/pairs', { revisions: await seen(), pairs: [{ lines, charge: charge.id }] });
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
