import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { systemClock, today } from '../../platform/ports/clock.ts';
import { handIn, viewOf } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

const inDays = (days: number): string => addDays(today(systemClock), days);
let api: TestApi;
const by: Record<string, Client> = {};
const MAILS = {
  tomas: 'tomas.brandao',
  siobhan: 'siobhan.odowd',
  odd: 'odd.fjellheim',
  ren: 'ren.isshiki',
  maeve: 'maeve.tarrant',
  wanjiru: 'wanjiru.mbaya',
  leilani: 'leilani.kahue',
};
beforeAll(async () => {
  api = await startApi('approvals');
  for (const [name, mail] of Object.entries(MAILS)) by[name] = await api.as(mail);
  await api.owner('budgets').update({ amount: 90_000_000 });
});
afterEach(() => api.owner('substitutes').delete());
afterAll(() => api.close());

const CODING = { costCentre: '430', fund: '10' };
const line = (amount: string, more: object = {}) => ({
  ...{ date: inDays(-2), amount: { amount, currency: 'EUR' }, category: 'supplies', merchant: `Quay Stores ${amount}` },
  coding: CODING,
  ...more,
});
/** A claim of Tomás with lines, handed in. */
async function claimOf(lines: object[]): Promise<string> {
  const { number } = (await by.tomas!.post('/drafts', { purpose: 'Nets', coding: CODING })).body;
  const written = await by.tomas!.post(`/drafts/${number}/lines`, { revision: 1, lines });
  expect(written.body.code).toBeUndefined();
  expect((await handIn(by.tomas!, number)).body.code).toBeUndefined();
  return number;
}
const claimAt = async (number: string, who = 'maeve') => (await viewOf(by[who]!, number)).claim;
async function act(who: string, number: string, name: string, more: object = {}) {
  const { rows } = await api.owner.raw('select revision from claims where number = ?', [number]);
  return by[who]!.post(`/claims/${number}/${name}`, { revision: rows[0].revision, ...more });
}
const waiting = async (who: string) => (await by[who]!.get('/approvals')).body.waiting as any[];
const waitsFor = async (who: string, number: string) => (await waiting(who)).find((w) => w.number === number);
const routeOf = async (number: string, who = 'tomas') => (await by[who]!.get(`/approval-routes/claim/${number}`)).body;

describe('a claim on its route', () => {
  it('climbs level by level; side by side everybody decides; owners see what is theirs', async () => {
    const number = await claimOf([
      line('1600.00', { coding: { costCentre: '430', fund: '10', project: 'FLAT-07' } }),
      line('900.00'),
    ]);
    expect(await claimAt(number)).toMatchObject({ deciders: ['Siobhán O’Dowd'] });
    expect(await waitsFor('ren', number)).toBeUndefined();
    expect((await act('ren', number, 'approve')).body.code).toBe('not-yours');
    expect((await act('siobhan', number, 'approve')).body.claim.state).toBe('with approver');
    expect(await claimAt(number)).toMatchObject({ deciders: ['Odd Fjellheim', 'Ren Isshiki'] });
    const asked = await waitsFor('ren', number);
    expect(asked).toMatchObject({ amount: '2500.00', levels: ['Owners of projects and grants'], usual: false });
    expect(asked.about).toMatchObject([{ dimension: 'project', code: 'FLAT-07' }]);
    expect((await act('siobhan', number, 'approve')).body.code).toBe('not-yours');
    expect((await act('ren', number, 'approve')).body.claim.state).toBe('with approver');
    expect((await act('odd', number, 'approve')).body.claim.state).toBe('in review');
    const { levels } = await routeOf(number, 'maeve');
    expect(levels.map((l: any) => l.needs.map((n: any) => n.decidedBy ?? null))).toEqual([
      [],
      ['Siobhán O’Dowd'],
      ['Ren Isshiki'],
      ['Odd Fjellheim'],
      [],
      [],
      [],
    ]);
    expect(levels[4].skipped).toMatchObject([{ why: 'below', limit: '5000.00', currency: 'EUR' }]);
    expect((await by.ren!.get(`/claims/${number}`)).body.audience).toBe('approver');
  });
  it('is shown before it is sent, and to nobody it does not concern', async () => {
    const { number } = (await by.tomas!.post('/drafts', { purpose: 'Nets' })).body;
    await by.tomas!.post(`/drafts/${number}/lines`, { revision: 1, lines: [line('2100.00')] });
    const route = await routeOf(number);
    expect(route).toMatchObject({ submitted: false, unfilled: null });
    expect(route.levels.map((l: any) => l.needs.map((n: any) => n.people))).toEqual([
      [],
      [['Siobhán O’Dowd']],
      [],
      [['Odd Fjellheim']],
      [],
      [],
      [],
    ]);
    for (const who of ['siobhan', 'wanjiru', 'maeve'])
      expect((await by[who]!.get(`/approval-routes/claim/${number}`)).status).toBe(404);
  });
});

describe('a substitute', () => {
  const put = async (from: number, to: number) => {
    await api.owner('substitutes').delete();
    const dates = { valid_from: inDays(from), valid_to: inDays(to) };
    await api.owner('substitutes').insert({ person_id: 'P09', substitute_id: 'P07', ...dates });
  };
  it('decides within their dates alone, also for what waited before, and it says for whom', async () => {
    const number = await claimOf([line('31.00')]);
    await put(1, 5);
    expect((await act('ren', number, 'approve')).body.code).toBe('not-found');
    await put(-5, -1);
    expect((await act('ren', number, 'approve')).body.code).toBe('not-found');
    await put(0, 0);
    expect(await waitsFor('ren', number)).toMatchObject({ insteadOf: ['Siobhán O’Dowd'] });
    expect((await act('ren', number, 'approve')).body.claim.state).toBe('in review');
    const { facts } = (await viewOf(by.maeve!, number)).history.at(-1);
    expect(facts).toMatchObject({ insteadOf: ['P09'] });
    await put(-5, -1);
    expect((await by.ren!.get(`/claims/${number}`)).body.audience).toBe('approver');
  });
  it('is on the route while the other is away, and decides nothing of their own', async () => {
    await put(0, 3);
    const number = await claimOf([line('32.00')]);
    const [, usual] = (await routeOf(number)).levels;
    expect(usual.needs[0]).toMatchObject({
      people: ['Ren Isshiki'],
      detours: [{ person: 'Siobhán O’Dowd', why: 'away', to: 'Ren Isshiki', as: 'substitute' }],
    });
    await api.owner('claims').where({ number }).update({ preparer_id: 'P07' });
    expect((await act('ren', number, 'approve')).body.code).toBe('own-record');
    expect(await waitsFor('ren', number)).toBeUndefined();
  });
});

describe('a decision', () => {
  it('is taken back by whom it was taken, until somebody acts', async () => {
    const number = await claimOf([line('41.00')]);
    await act('siobhan', number, 'approve');
    expect((await act('odd', number, 'take-back')).body.code).toBe('not-yours');
    const { decided } = (await by.siobhan!.get('/approvals')).body;
    expect(decided.map((d: any) => d.number)).toContain(number);
    expect((await act('siobhan', number, 'take-back')).body.claim).toMatchObject({
      state: 'with approver',
      deciders: ['Siobhán O’Dowd'],
    });
    await act('siobhan', number, 'approve');
    await act('maeve', number, 'hold', { reason: 'Later', until: inDays(3) });
    expect((await act('siobhan', number, 'take-back')).body.code).toBe('not-yours');
    expect((await by.siobhan!.get('/approvals')).body.decided.map((d: any) => d.number)).not.toContain(number);
  });
  it('names the revision it saw', async () => {
    const number = await claimOf([line('42.00')]);
    const { revision } = await claimAt(number);
    const stale = await by.siobhan!.post(`/claims/${number}/approve`, { revision: revision - 1 });
    expect(stale.body.code).toBe('stale');
  });
  it('goes with a word, and back with what is asked at single lines, each answered there', async () => {
    const number = await claimOf([line('44.00'), line('45.00')]);
    const asks = { reason: 'Two things.', lines: [{ line: '2', text: 'What is it for?' }] };
    expect((await act('siobhan', number, 'return', { ...asks, lines: [{ line: '9', text: 'x' }] })).body.code).toBe(
      'not-found',
    );
    expect((await act('siobhan', number, 'return', asks)).body.claim.state).toBe('returned');
    const { queries, claim } = await viewOf(by.tomas!, number);
    expect(queries).toMatchObject([
      { line: '2', text: 'What is it for?', by: 'Siobhán O’Dowd', sent: true, answer: null },
    ]);
    const path = `/drafts/${number}/queries/${queries[0].id}`;
    await by.tomas!.put(path, { revision: claim.revision, text: 'For the weir.' });
    await handIn(by.tomas!, number, 'resubmit');
    expect((await viewOf(by.siobhan!, number)).queries[0].answer.text).toBe('For the weir.');
    await act('siobhan', number, 'approve', { comment: 'Now I see.' });
    expect((await viewOf(by.tomas!, number)).history.at(-1)).toMatchObject({
      kind: 'approved',
      words: { comment: 'Now I see.' },
    });
  });
  it('is usual where nothing is off, and nobody waits once it is returned', async () => {
    const number = await claimOf([line('43.00')]);
    const row = await waitsFor('siobhan', number);
    expect(row.usual).toBe(Object.values(row.ties).every((t) => t === 'tied' || t === 'none'));
    await act('siobhan', number, 'return', { reason: 'The receipt is missing.' });
    expect(await waitsFor('siobhan', number)).toBeUndefined();
    expect((await handIn(by.tomas!, number, 'resubmit')).body.claim).toMatchObject({
      version: 2,
      deciders: ['Siobhán O’Dowd'],
    });
    expect((await waitsFor('siobhan', number)).number).toBe(number);
  });
});

describe('a line that is declined', () => {
  it('stays visible and leaves the total; it is taken as it was again', async () => {
    const number = await claimOf([line('51.00'), line('9.00')]);
    expect((await act('siobhan', number, 'decline-line', { line: '1' })).body.code).toBe('invalid');
    const reason = 'The boat was paid centrally.';
    const { body } = await act('siobhan', number, 'decline-line', { line: '1', reason });
    expect(body.settlement).toMatchObject({ toPay: '9.00' });
    expect(body.document.lines[0].cut).toEqual({ amount: '51.00', reason });
    expect(body.history.at(-1)).toMatchObject({ kind: 'line declined', words: { reason } });
    const restored = (await act('siobhan', number, 'restore-line', { line: '1' })).body;
    expect(restored.settlement.toPay).toBe('60.00');
    await act('siobhan', number, 'decline-line', { line: '1', reason });
    expect((await act('siobhan', number, 'approve')).body.settlement.toPay).toBe('9.00');
    expect((await act('tomas', number, 'decline-line', { line: '2', reason })).body.code).toMatch(
      /own-record|not-allowed/,
    );
  });
  it('is not one that is paid centrally', async () => {
    const number = await claimOf([line('52.00', { paidBy: 'central' })]);
    const { body } = await act('siobhan', number, 'decline-line', { line: '1', reason: 'No.' });
    expect(body.code).toBe('line-not-declined');
  });
});

describe('a code that finance gives a claim', () => {
  const project = (code: string) => ({ costCentre: '430', fund: '10', project: code, spendType: 'materials' });
  it('asks its owner, and only them, before the claim clears; what is taken off again asks nobody', async () => {
    const number = await claimOf([line('61.00')]);
    await act('siobhan', number, 'approve');
    const correct = async (coding: object) => {
      const { revision } = await claimAt(number);
      return by.maeve!.put(`/claims/${number}/lines/1`, { revision, set: { coding } });
    };
    expect((await correct(project('FLAT-07'))).body.code).toBeUndefined();
    expect((await waitsFor('ren', number)).about).toMatchObject([
      { dimension: 'project', code: 'FLAT-07', amount: '61.00' },
    ]);
    expect(await waitsFor('siobhan', number)).toBeUndefined();
    expect((await act('maeve', number, 'clear')).body).toMatchObject({
      code: 'owners-asked',
      numbers: { owners: 'Ren Isshiki' },
    });
    expect((await act('siobhan', number, 'agree-code')).body.code).toBe('not-yours');
    await correct(CODING);
    expect(await waitsFor('ren', number)).toBeUndefined();
    expect((await act('maeve', number, 'clear')).body.code).not.toBe('owners-asked');
    await correct(project('FLAT-07'));
    await act('ren', number, 'refuse-code', { reason: 'Not ours.' });
    expect(await waitsFor('ren', number)).toBeUndefined();
    expect((await act('maeve', number, 'clear')).body.code).toBe('owners-asked');
    expect((await act('ren', number, 'agree-code')).body.code).toBeUndefined();
    expect((await act('maeve', number, 'clear')).body.code).not.toBe('owners-asked');
    expect((await routeOf(number, 'maeve')).codes).toMatchObject([{ decidedBy: 'Ren Isshiki' }]);
    expect((await by.wanjiru!.get(`/approval-routes/claim/${number}`)).status).toBe(404);
  });
  it('asks each owner about their own', async () => {
    const number = await claimOf([line('62.00')]);
    await act('siobhan', number, 'approve');
    const { revision } = await claimAt(number);
    const coding = { ...project('FLAT-07'), costCentre: '440' };
    await by.maeve!.put(`/claims/${number}/lines/1`, { revision, set: { coding } });
    expect((await claimAt(number)).ownersAsked).toEqual(['Odd Fjellheim', 'Ren Isshiki']);
    await act('ren', number, 'agree-code');
    expect((await claimAt(number)).ownersAsked).toEqual(['Odd Fjellheim']);
  });
});

describe('the route of a made-up record', () => {
  const wanted = {
    ...{ kind: 'claim', on: inDays(0), entity: 'IE', claimant: 'P10', total: '60000.00', currency: 'EUR' },
    ...{ charged: [{ dimension: 'grant', code: 'G-204', amount: '1500.01' }], categories: [] },
  };
  it('is told to who keeps the routes, with its reasons', async () => {
    const { body } = await by.leilani!.post('/approval-routes/tries', wanted);
    expect(body.levels.map((l: any) => [l.place, l.needs.map((n: any) => n.people.join(' or '))])).toEqual([
      [1, ['Odd Fjellheim']],
      [1, ['Siobhán O’Dowd']],
      [2, ['Ren Isshiki']],
      [2, []],
      [3, []],
      [4, []],
      [5, ['Leilani Kahue']],
    ]);
    expect((await by.odd!.post('/approval-routes/tries', wanted)).status).toBe(403);
  });
  it('is refused by name where it makes no sense', async () => {
    const code = async (more: object) =>
      (await by.leilani!.post('/approval-routes/tries', { ...wanted, ...more })).body.code;
    expect(await code({ entity: 'XX' })).toBe('not-found');
    expect(await code({ claimant: 'P99' })).toBe('not-found');
    expect(await code({ total: '1.005' })).toBe('invalid');
    expect(await code({ charged: [{ dimension: 'grant', code: 'G-999', amount: '1.00' }] })).toBe('invalid');
  });
});
