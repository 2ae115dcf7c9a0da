import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { handIn } from '../../../test/fixtures/acts.ts';
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
    expect(counts).toMatchObject({ 'in review': 13, cleared: 3, posted: 4 });
    expect(counts.draft).toBeUndefined();
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
      .raw(`insert into claims (number, entity_id, claimant_id, preparer_id, currency, state, purpose, search, begun_on, submitted_version, submitted_on, priority)
      select 'X-' || i, 'IE', 'P05', 'P05', 'EUR', 'in review', 'page', 'page', '2026-01-01', 1, date '2026-01-01' + (i % 7), i % 3 from generate_series(1, 120) i`);
    const counted = (await maeve.get('/claims')).body.counts['in review'];
    expect(counted).toBe(133);
    const seen: string[] = [];
    let after = '';
    for (let page = 0; page < 9; page += 1) {
      const { claims, next } = (await maeve.get(`/claims?q=page${after}`)).body;
      seen.push(...claims.map((c: any) => c.number));
      if (!next) break;
      after = `&after=${encodeURIComponent(next)}`;
    }
    expect([seen.length, new Set(seen).size]).toEqual([120, 120]);
    // what ends no page does not begin the first one again
    for (const strange of ['null/null/1', '0', "1/2026-01-01/1'"])
      expect((await maeve.get(`/claims?after=${encodeURIComponent(strange)}`)).status).toBe(400);
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
      numbers: { path: 'claim.lines.0.category' },
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

describe('who may not', () => {
  const acts = [
    ['clear', {}],
    ['return', { reason: 'x' }],
    ['marks', { line: '1', kind: 'receipt', mark: 'none' }],
    ['hold', { reason: 'x', until: '2030-01-01' }],
    ['queries', { line: '1', text: 'x' }],
  ] as const;
  it('act on a claim of their own', async () => {
    const { claim, may, audience } = await view('C-1007');
    expect([audience, may]).toEqual(['claimant', []]);
    for (const [path, body] of acts)
      expect((await maeve.post(`/claims/C-1007/${path}`, { revision: claim.revision, ...body })).body.code).toBe(
        'own-record',
      );
    expect(
      (await maeve.put('/claims/C-1007/lines/1', { revision: claim.revision, set: { coding: {} } })).body.code,
    ).toBe('own-record');
  });
  it('act on a claim they prepared for somebody else', async () => {
    await api.owner('claims').where({ number: 'C-1011' }).update({ preparer_id: 'P01' });
    const { claim } = await view('C-1011');
    expect((await maeve.post('/claims/C-1011/clear', { revision: claim.revision })).body.code).toBe('own-record');
    await api.owner('claims').where({ number: 'C-1011' }).update({ preparer_id: 'P07' });
  });
  it('act on a claim in another state', async () => {
    const { claim } = await view('C-1024');
    expect((await maeve.post('/claims/C-1024/clear', { revision: claim.revision })).body).toMatchObject({
      code: 'wrong-state',
      numbers: { state: 'with approver' },
    });
  });
  it('mark, ask about or look up what is not there', async () => {
    const { revision } = (await view('C-1009')).claim;
    const post = (what: string, body: object) => maeve.post(`/claims/C-1009/${what}`, { revision, ...body });
    const nothing = { mark: 'none', kind: 'tax', line: '99' };
    expect((await post('marks', nothing)).body.code).toBe('not-found');
    expect((await post('queries', { line: '99', text: 'Where is it?' })).body.code).toBe('not-found');
    expect((await maeve.get(`/books/${'0'.repeat(64)}`)).body.code).toBe('not-found');
  });
  it('act with a role that has ended', async () => {
    const roles = () => api.owner('person_roles').where({ person_id: 'P02', role: 'reviewer' });
    await roles().update({ valid_to: '2020-01-01' });
    expect((await ines.get('/claims')).body.code).toBe('not-allowed');
    await roles().update({ valid_to: null });
    expect((await ines.get('/claims')).status).toBe(200);
  });
});

describe('asking, holding, returning', () => {
  it('puts a claim on hold and takes it off again', async () => {
    const { revision } = (await view('C-1004')).claim;
    const words = { reason: 'Waiting for the bank slip', until: '2030-01-01' };
    const held = await maeve.post('/claims/C-1004/hold', { revision, ...words });
    expect(held.body.claim).toMatchObject({ holdReason: 'Waiting for the bank slip', holdUntil: '2030-01-01' });
    const last = (await maeve.get('/claims')).body.claims.at(-1);
    expect(last.number).toBe('C-1004');
    const off = await maeve.post('/claims/C-1004/release', { revision: revision + 1 });
    expect(off.body.claim.holdReason).toBeNull();
    expect((await maeve.get('/claims')).body.claims.at(-1).number).not.toBe('C-1004');
  });
  it('returns a claim with its reason and all queries, which the claimant reads only then', async () => {
    const wanjiru = await api.as('wanjiru.mbaya');
    const { revision } = (await view('C-1008')).claim;
    const question = { revision, line: '1', kind: null, text: 'What is the remaining 4.00?' };
    const asked = await maeve.post('/claims/C-1008/queries', question);
    const before = await view('C-1008', wanjiru);
    expect([before.queries, before.history.some((e: any) => e.kind === 'asked')]).toEqual([[], false]);
    const back = { revision: asked.body.claim.revision, reason: 'Please complete the items.' };
    const lost = await maeve.post('/claims/C-1008/return', { ...back, lines: [{ line: '99', text: 'And this?' }] });
    expect(lost.body.code).toBe('not-found');
    const { body } = await maeve.post('/claims/C-1008/return', back);
    expect(body.claim.state).toBe('returned');
    const own = await view('C-1008', wanjiru);
    expect(own.queries).toMatchObject([{ line: '1', text: 'What is the remaining 4.00?' }]);
    expect(own.history.at(-1)).toMatchObject({ kind: 'returned', words: { reason: 'Please complete the items.' } });
  });
  it('opens the next version for the claimant, while finance still reads the one that was submitted', async () => {
    const wanjiru = await api.as('wanjiru.mbaya');
    const mine = await view('C-1008', wanjiru);
    expect(mine.claim.version).toBe(2);
    expect(mine.may).toEqual(expect.arrayContaining(['edit', 'resubmit']));
    const [query] = mine.queries;
    const answer = async (client: Client, id: string, text: string) =>
      client.put(`/drafts/C-1008/queries/${id}`, { revision: (await view('C-1008', wanjiru)).claim.revision, text });
    expect((await answer(wanjiru, query.id, 'The deposit.')).body.queries[0].answer.by).toBe('Wanjirũ Mbaya');
    expect((await answer(wanjiru, '999999', 'x')).body.code).toBe('not-found');
    expect((await answer(maeve, query.id, 'x')).body.code).toBe('not-yours');
    mine.claim.revision += 1;
    const line = mine.document.lines[0];
    const items = line.items.map((i: any, k: number) => (k === 0 ? { ...i, amount: '0.00' } : i));
    const left = items.slice(1).reduce((a: number, i: any) => a + Math.round(Number(i.amount) * 100), 0);
    items[0].amount = ((Math.round(Number(line.amount) * 100) - left) / 100).toFixed(2);
    const edited = await wanjiru.put(`/drafts/C-1008/lines/${line.id}`, {
      revision: mine.claim.revision,
      set: { items },
    });
    expect(edited.status).toBe(200);
    const finance = await view('C-1008');
    expect(finance.claim.version).toBe(1);
    expect(finance.document.claim.lines[0].items).toEqual(line.items);
    // finance's split left 4.00 of line 2: what stops the claim is put right before it goes out again
    const early = await wanjiru.post('/claims/C-1008/resubmit', { revision: edited.body.claim.revision });
    expect([early.status, early.body.code, early.body.numbers.first]).toEqual([
      422,
      'has-stops',
      'line 2: The split leaves 4.00 EUR. Change the shares until nothing is left.',
    ]);
    const whole = { revision: edited.body.claim.revision, set: { split: null } };
    await wanjiru.put('/drafts/C-1008/lines/2', whole);
    const again = await handIn(wanjiru, 'C-1008', 'resubmit');
    expect(again.body.claim).toMatchObject({ state: 'with approver', version: 2 });
    expect((await view('C-1008')).document.claim.lines[0].items[0].amount).toBe(items[0].amount);
    expect((await view('C-1008')).submitted.version).toBe(2);
    expect((await view('C-1008')).queries[0]).toMatchObject({ version: 1, answer: { text: 'The deposit.' } });
    expect((await answer(wanjiru, query.id, 'Other')).body.code).toBe('wrong-state');
  });
  it('declines a claim for good, and whoever claimed it reads why', async () => {
    const { claim } = await view('C-1010');
    const { body } = await ines.post('/claims/C-1010/decline', { revision: claim.revision, reason: 'Paid already.' });
    expect([body.claim.state, body.may]).toEqual(['declined', []]);
  });
});
