import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear, mark } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** What a reviewer says of comparisons, and the clearing that asks for it. */
let api: TestApi;
let maeve: Client;
let ines: Client;
beforeAll(async () => {
  api = await startApi('marks');
  [maeve, ines] = [await api.as('maeve.tarrant'), await api.as('ines.quadros')];
});
afterAll(() => api.close());

const view = async (number: string, client = maeve) => (await client.get(`/claims/${number}`)).body;

describe('marks', () => {
  it('let a claim be cleared once every comparison is dealt with', async () => {
    const { claim, ties } = await view('C-1002');
    const clearNow = async () =>
      maeve.post('/claims/C-1002/clear', { revision: (await view('C-1002')).claim.revision });
    expect((await clearNow()).body).toMatchObject({
      code: 'ties-open',
      numbers: { count: 1, cells: 'line 3 receipt' },
    });
    const cell = { line: '3', kind: 'receipt' };
    const seen = await mark(maeve, 'C-1002', { ...cell, mark: 'seen' });
    expect(seen.body.claim.revision).toBe(claim.revision + 1);
    expect((await clearNow()).body.code).toBe('ties-open');
    expect((await mark(maeve, 'C-1002', { ...cell, mark: 'waived' })).body.code).toBe('invalid');
    const waived = await mark(maeve, 'C-1002', { ...cell, mark: 'waived', reason: 'Less was claimed than paid' });
    expect(waived.body.marks).toMatchObject([{ mark: 'waived', by: 'Maeve Tarrant' }]);
    const before = ties.find((t: any) => t.line === '3' && t.kind === 'receipt');
    const after = waived.body.ties.find((t: any) => t.line === '3' && t.kind === 'receipt');
    expect([before.shown, after.shown, after.about]).toEqual(['off', 'waived', before.about]);
    const cleared = await clearNow();
    expect(cleared.body.claim).toMatchObject({ state: 'cleared', clearedBy: 'Maeve Tarrant' });
    const back = await maeve.post('/claims/C-1002/reopen', { revision: cleared.body.claim.revision });
    expect(back.body.claim).toMatchObject({ state: 'in review', clearedBy: null });
  });

  it('fall away when what they were about changes', async () => {
    const waived = await mark(maeve, 'C-1009', { line: '1', kind: 'tax', mark: 'waived', reason: 'Irish branch' });
    const { revision } = waived.body.claim;
    const { body } = await maeve.put('/claims/C-1009/lines/1', { revision, set: { tax: [] } });
    expect([waived.body.marks.length, body.marks]).toEqual([1, []]);
  });

  it('are refused when the comparison is no longer what was looked at', async () => {
    const answer = await mark(maeve, 'C-1009', { line: '2', kind: 'tax', mark: 'seen', about: '0'.repeat(64) });
    expect([answer.status, answer.body.code]).toEqual([409, 'comparison-changed']);
  });

  it('are set at several lines at once, all or none, and taken back the same way', async () => {
    const kind = 'duplicate';
    const [first, second, third] = (await view('C-1009')).ties.filter((t: any) => t.kind === kind);
    const marked = async () => (await view('C-1009')).marks.filter((m: any) => m.kind === kind).map((m: any) => m.line);
    const before = await marked();
    const at = { line: first.line, kind, mark: 'waived', reason: 'Looked at' };
    const other = { line: third.line, about: '0'.repeat(64) };
    const refused = await mark(maeve, 'C-1009', { ...at, also: [{ line: second.line, about: second.about }, other] });
    expect([refused.status, refused.body.code, refused.body.numbers.line]).toEqual([
      409,
      'comparison-changed',
      third.line,
    ]);
    expect(await marked()).toEqual(before);
    const also = [second, third].map(({ line, about }) => ({ line, about }));
    expect((await mark(maeve, 'C-1009', { ...at, also })).status).toBe(200);
    expect(await marked()).toEqual(expect.arrayContaining([first.line, second.line, third.line]));
    expect((await view('C-1009')).history.at(-1).facts).toMatchObject({
      line: first.line,
      also: [second.line, third.line],
    });
    const back = { line: first.line, kind, mark: 'none', also: also.map(({ line }) => ({ line })) };
    expect((await mark(maeve, 'C-1009', back)).status).toBe(200);
    expect(await marked()).toEqual(before);
  });

  it('count the revision up, so that two reviewers never mark over each other unseen', async () => {
    const { claim } = await view('C-1001');
    await mark(ines, 'C-1001', { line: '6', kind: 'receipt', mark: 'seen' });
    const late = await mark(maeve, 'C-1001', { line: '6', kind: 'receipt', mark: 'none', revision: claim.revision });
    expect(late.body).toMatchObject({
      code: 'stale',
      numbers: { changes: [{ kind: 'marked', actor: 'Inês Quadros' }] },
    });
  });
});

describe('clearing', () => {
  it('that finds what was not there when the claim was last computed shows it from then on', async () => {
    const at = async () => (await view('C-1003')).ties.find((t: any) => t.line === '3' && t.kind === 'receipt');
    const { claim_id, ties } = await api
      .owner('assessments as a')
      .join('claims as c', (on) => on.on('c.id', 'a.claim_id').andOn('c.version', 'a.version'))
      .where({ number: 'C-1003' })
      .first('a.claim_id', 'a.ties');
    const tied = ties.map((t: any) => ({ ...t, state: t.state === 'off' || t.state === 'open' ? 'tied' : t.state }));
    await api
      .owner('assessments')
      .where({ claim_id })
      .update({ ties: JSON.stringify(tied) });
    expect((await at()).shown).toBe('tied');
    const { claim } = await view('C-1003');
    const answer = await maeve.post('/claims/C-1003/clear', { revision: claim.revision });
    expect([answer.body.code, answer.body.numbers]).toMatchObject(['ties-open', { line: '3', kind: 'receipt' }]);
    expect([(await at()).shown, (await view('C-1003')).claim.revision]).toEqual(['off', claim.revision]);
  });
  it('is for a reviewer, once, and leaves what it held of the budgets when it is taken back', async () => {
    const answers = await Promise.all([clear(maeve, 'C-1013'), clear(ines, 'C-1013')]);
    expect(answers.filter((a) => a.status === 200)).toHaveLength(1);
  });
});
