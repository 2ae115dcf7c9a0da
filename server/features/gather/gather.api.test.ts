import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { chargesOf, freeChargeOf, ownReceipt, revisionsOf, take } from '../../../test/fixtures/gathering.ts';

let api: TestApi;
let tomas: Client;
let leilani: Client;
beforeAll(async () => {
  api = await startApi('gather');
  [tomas, leilani] = await Promise.all([api.as('tomas.brandao'), api.as('leilani.kahue')]);
});
afterAll(() => api.close());

const draft = async () => {
  const { body } = await tomas.get('/pairs');
  return { ...body, revision: body.revisions['C-1031'] as number };
};
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
    const pairs = [{ lines, charge: pair.right[0] }];
    expect((await tomas.post('/pairs', { revisions: { 'C-1031': view.revision + 5 }, pairs })).status).toBe(409);
    const { status } = await tomas.post('/pairs', { revisions: { 'C-1031': view.revision }, pairs });
    expect(status).toBe(200);
    const [a, b] = await settledOf('3', '4');
    const charge = (await api.owner('charges').where({ id: pair.right[0] }).first())!;
    expect(a! + b!).toBe(BigInt(charge.settled_amount));
    const { body } = await tomas.post('/pairs/undo', { revisions: await revisionsOf(tomas), lines, what: 'charge' });
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
    await tomas.post('/pairs/undo', { revisions: await revisionsOf(tomas), lines: pair.lines, what: 'charge' });
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
  it('are kept half done, with what is left said, and hold up only the submission', async () => {
    const { revision, lines } = await draft();
    const { line, amount } = lines[0];
    const items = (first: string) => ({
      revision,
      set: { items: [{ id: `${line}a`, amount: first, category: 'meal' }] },
    });
    const half = await tomas.put(`/drafts/C-1031/lines/${line}`, items('0.01'));
    expect(half.status).toBe(200);
    const off = half.body.findings.find((f: { line: string; says: string }) => f.line === line && /leave/.test(f.says));
    expect(off.says).toContain(((Math.round(Number(amount) * 100) - 1) / 100).toFixed(2));
    const seen = half.body.claim.revision;
    const submitted = await tomas.post('/claims/C-1031/submit', { revision: seen });
    expect([submitted.status, submitted.body.code]).toEqual([422, 'items-left']);
    const whole = { ...items(amount), revision: seen };
    expect((await tomas.put(`/drafts/C-1031/lines/${line}`, whole)).status).toBe(200);
    expect((await leilani.put(`/drafts/C-1031/lines/${line}`, whole)).status).toBe(404);
  });
});

describe('a purchasing card’s month', () => {
  it('is closed when every charge is accounted for and the totals agree, and then stays as it is', async () => {
    const { body } = await leilani.get('/cards');
    const { month } = body.cards[0].months[1];
    const path = `/cards/4427/months/${month}`;
    expect((await tomas.get(path)).status).toBe(404);
    const maeve = await api.as('maeve.tarrant');
    expect((await maeve.put(`${path}/closed`, { revision: 1 })).body.says).toMatch(/not/);
    const mine = (await leilani.get(path)).body.charges as { id: string }[];
    const { body: claim } = await leilani.post('/drafts/lines', {
      claim: null,
      purpose: 'The month',
      take: mine.map((c) => ({ charge: c.id })),
    });
    const { body: view } = await leilani.get(`/claims/${claim.number}`);
    expect(view.settlement.toPay).toBe('0.00');
    expect((await leilani.put(`${path}/closed`, { revision: 1 })).body.code).toBe('not-allowed');
    await api.owner('person_roles').insert({ person_id: 'P11', role: 'reviewer' });
    expect((await leilani.put(`${path}/closed`, { revision: 1 })).body.code).toBe('own-record');
    await api.owner('person_roles').where({ person_id: 'P11', role: 'reviewer' }).delete();
    const { body: closed } = await maeve.put(`${path}/closed`, { revision: 1 });
    expect([closed.state, closed.revision, closed.may]).toEqual(['closed', 2, ['reopen']]);
    expect((await maeve.put(`${path}/closed`, { revision: 1 })).body.code).toBe('stale');
    expect((await tomas.put(`${path}/closed`, { revision: 2 })).body.code).toBe('not-allowed');
    const auditor = await api.as('ottoline.marchbanks');
    expect((await auditor.get(path)).body.may).toEqual([]);
    expect((await auditor.send('DELETE', `${path}/closed?revision=2`)).body.code).toBe('not-allowed');
    expect([closed.closedBy, closed.proof.difference, closed.proof.problems]).toEqual(['Maeve Tarrant', '0.00', []]);
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
    expect((await maeve.send('DELETE', `${path}/closed?revision=2`)).body.closedBy).toBeNull();
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
