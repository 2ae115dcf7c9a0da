import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let maeve: Client;
let ines: Client;
beforeAll(async () => {
  api = await startApi('review');
  [maeve, ines] = [await api.as('maeve.tarrant'), await api.as('ines.quadros')];
});
afterAll(() => api.close());

const view = async (number: string, client = maeve) => (await client.get(`/claims/${number}`)).body;
const split = {
  by: 'percent',
  shares: [
    { coding: { costCentre: '420' }, value: '25' },
    { coding: {}, value: 'rest' },
  ],
};

describe('the queue', () => {
  it('shows what deserves attention first, and counts the states', async () => {
    const { claims, counts } = (await maeve.get('/claims')).body;
    expect(claims.slice(0, 2).map((c: any) => [c.number, c.stops])).toEqual([
      ['C-1006', 1],
      ['C-1008', 1],
    ]);
    expect(counts).toMatchObject({ 'in review': 13, cleared: 3, posted: 4, draft: 2 });
    const attention = claims.map((c: any) => [c.stops > 0, Object.values(c.ties).includes('off')]);
    expect(attention.findIndex(([stop, off]: boolean[]) => !stop && !off)).toBeGreaterThan(
      attention.findLastIndex(([stop]: boolean[]) => stop),
    );
  });
  it('is searched by number, person and purpose', async () => {
    const found = async (q: string) =>
      (await maeve.get(`/claims?q=${encodeURIComponent(q)}`)).body.claims.map((c: any) => c.number);
    expect(await found('1004')).toEqual(['C-1004']);
    expect(await found('kuramochi')).toEqual(['C-1002']);
    expect(await found('reed-bed')).toEqual(['C-1001']);
    expect(await found('100%')).toEqual([]);
  });
  it('goes on page by page without losing or repeating a claim', async () => {
    await api.owner
      .raw(`insert into claims (number, entity_id, claimant_id, preparer_id, currency, state, purpose, submitted_on, attention)
      select 'X-' || i, 'IE', 'P05', 'P05', 'EUR', 'in review', 'page', date '2026-01-01' + (i % 7), i % 3 from generate_series(1, 120) i`);
    const seen: string[] = [];
    let after = '';
    for (let page = 0; page < 9; page += 1) {
      const { claims, next } = (await maeve.get(`/claims?q=page${after}`)).body;
      seen.push(...claims.map((c: any) => c.number));
      if (!next) break;
      after = `&after=${encodeURIComponent(next)}`;
    }
    expect([seen.length, new Set(seen).size]).toEqual([120, 120]);
    await api.owner.raw(`delete from claims where number like 'X-%'`);
  });
});

describe('correcting a line', () => {
  it('assesses again, keeps the original and leaves an event', async () => {
    const before = await view('C-1001');
    const { status, body } = await maeve.put('/claims/C-1001/lines/5', {
      revision: before.claim.revision,
      set: { split },
    });
    expect(status).toBe(200);
    expect(body.claim.revision).toBe(before.claim.revision + 1);
    const shares = body.assessment.lines[4].parts[0].shares;
    expect(shares.map((s: any) => [s.coding.costCentre, s.gross, s.cost])).toEqual([
      ['420', '25.00', '20.32'],
      ['410', '75.01', '60.99'],
    ]);
    expect(body.submitted.lines[4].split).toBeNull();
    expect(body.history.at(-1)).toMatchObject({
      kind: 'corrected',
      facts: { line: '5', from: { split: null }, to: { split } },
    });
    const stored = await api
      .owner('assessments as a')
      .join('claims as c', 'c.id', 'a.claim_id')
      .where('c.number', 'C-1001')
      .first('a.*');
    expect(stored.revision).toBe(body.claim.revision);
    expect(stored.result).toEqual(body.assessment);
  });

  it('tells the second of two reviewers what changed, and changes nothing', async () => {
    const stale = (await view('C-1001')).claim.revision;
    expect(
      (await ines.put('/claims/C-1001/lines/1', { revision: stale, set: { coding: { costCentre: '430' } } })).status,
    ).toBe(200);
    const second = await maeve.put('/claims/C-1001/lines/1', {
      revision: stale,
      set: { coding: { costCentre: '440' } },
    });
    expect(second.status).toBe(409);
    expect(second.body).toMatchObject({
      code: 'stale',
      numbers: { revision: stale + 1, changes: [{ actor: 'Inês Quadros', kind: 'corrected', facts: { line: '1' } }] },
    });
    expect((await view('C-1001')).document.claim.lines[0].coding).toEqual({ costCentre: '430' });
  });

  it('refuses what no claim can hold, and figures of the client’s own', async () => {
    const { revision } = (await view('C-1001')).claim;
    const put = (set: object, line = '1') => maeve.put(`/claims/C-1001/lines/${line}`, { revision, set });
    expect((await put({ category: 'yacht' })).body).toMatchObject({
      code: 'invalid',
      numbers: { path: 'claim.lines[0].category' },
    });
    expect((await put({ tax: [{ code: 'PT-6', tax: '1.234' }] })).body.code).toBe('invalid');
    expect((await put({ amount: '1.00' })).body.code).toBe('invalid');
    expect((await put({ coding: {} }, '99')).status).toBe(404);
    expect((await view('C-1001')).claim.revision).toBe(revision);
  });

  it('keeps a split that does not hold, as a stop that forbids clearing', async () => {
    const { revision } = (await view('C-1005')).claim;
    const wrong = { by: 'amount', shares: [{ coding: {}, value: '38.00' }] };
    const { body } = await maeve.put('/claims/C-1005/lines/1', { revision, set: { split: wrong } });
    expect(body.assessment.findings).toMatchObject([{ code: 'split-off', severity: 'stop', difference: '0.20' }]);
    expect((await maeve.post('/claims/C-1005/clear', { revision: revision + 1 })).body.code).toBe('has-stops');
    expect(
      (await maeve.put('/claims/C-1005/lines/1', { revision: revision + 1, set: { split: null } })).body.assessment
        .findings,
    ).toEqual([]);
  });
});

describe('marks', () => {
  it('let a claim be cleared once every comparison is dealt with', async () => {
    const { revision } = (await view('C-1002')).claim;
    const refused = await maeve.post('/claims/C-1002/clear', { revision });
    expect(refused.body).toMatchObject({ code: 'ties-open', numbers: { count: 1, cells: 'line 3 receipt' } });
    expect(
      (await maeve.post('/claims/C-1002/marks', { revision, line: '3', kind: 'receipt', mark: 'seen' })).status,
    ).toBe(200);
    expect((await maeve.post('/claims/C-1002/clear', { revision })).body.code).toBe('ties-open');
    expect(
      (await maeve.post('/claims/C-1002/marks', { revision, line: '3', kind: 'receipt', mark: 'waived' })).body.code,
    ).toBe('invalid');
    const waived = await maeve.post('/claims/C-1002/marks', {
      revision,
      line: '3',
      kind: 'receipt',
      mark: 'waived',
      reason: 'Less was claimed than paid',
    });
    expect(waived.body.marks).toMatchObject([{ mark: 'waived', by: 'Maeve Tarrant' }]);
    const cleared = await maeve.post('/claims/C-1002/clear', { revision });
    expect(cleared.body.claim).toMatchObject({ state: 'cleared', clearedBy: 'Maeve Tarrant' });
    const back = await maeve.post('/claims/C-1002/reopen', { revision: revision + 1 });
    expect(back.body.claim).toMatchObject({ state: 'in review', clearedBy: null });
  });

  it('fall away when what they were about changes', async () => {
    const { revision } = (await view('C-1009')).claim;
    await maeve.post('/claims/C-1009/marks', {
      revision,
      line: '1',
      kind: 'tax',
      mark: 'waived',
      reason: 'Irish branch',
    });
    const { body } = await maeve.put('/claims/C-1009/lines/1', { revision, set: { tax: [] } });
    expect(body.marks).toEqual([]);
  });
});

describe('who may not', () => {
  it('act on a claim of their own', async () => {
    const { claim, may } = await view('C-1007');
    expect(may).toEqual([]);
    for (const [path, body] of [
      ['clear', {}],
      ['return', { reason: 'x' }],
      ['marks', { line: '1', kind: 'receipt', mark: 'seen' }],
    ] as const)
      expect((await maeve.post(`/claims/C-1007/${path}`, { revision: claim.revision, ...body })).body.code).toBe(
        'own-claim',
      );
    expect(
      (await maeve.put('/claims/C-1007/lines/1', { revision: claim.revision, set: { coding: {} } })).body.code,
    ).toBe('own-claim');
  });
  it('act on a claim in another state', async () => {
    const { claim } = await view('C-1024');
    expect((await maeve.post('/claims/C-1024/clear', { revision: claim.revision })).body).toMatchObject({
      code: 'wrong-state',
      numbers: { state: 'with approver' },
    });
  });
});

describe('asking, holding, returning', () => {
  it('puts a claim on hold and takes it off again', async () => {
    const { revision } = (await view('C-1004')).claim;
    const held = await maeve.put('/claims/C-1004/hold', {
      revision,
      hold: { reason: 'Waiting for the bank slip', until: '2030-01-01' },
    });
    expect(held.body.claim).toMatchObject({ holdReason: 'Waiting for the bank slip', holdUntil: '2030-01-01' });
    const last = (await maeve.get('/claims')).body.claims.at(-1);
    expect(last.number).toBe('C-1004');
    const off = await maeve.put('/claims/C-1004/hold', { revision: revision + 1, hold: null });
    expect(off.body.claim.holdReason).toBeNull();
  });
  it('returns a claim with its reason and all questions, which the claimant reads', async () => {
    const { revision } = (await view('C-1008')).claim;
    await maeve.post('/claims/C-1008/queries', {
      revision,
      line: '1',
      kind: null,
      text: 'What is the remaining 4.00?',
    });
    const { body } = await maeve.post('/claims/C-1008/return', { revision, reason: 'Please complete the items.' });
    expect(body.claim.state).toBe('returned');
    const own = await view('C-1008', await api.as('wanjiru.mbaya'));
    expect(own.queries).toMatchObject([{ line: '1', text: 'What is the remaining 4.00?' }]);
    expect(own.history.at(-1)).toMatchObject({ kind: 'returned', words: { reason: 'Please complete the items.' } });
  });
});
