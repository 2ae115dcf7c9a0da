import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { viewOf } from '../../../../test/fixtures/acts.ts';
import { cleanClaims } from '../../../../test/fixtures/cleanClaims.ts';
import { startApi, type Client, type TestApi } from '../../../../test/fixtures/startApi.ts';
import { sha256 } from '../../../platform/history/sha256.ts';
import { drawnCount, drawOf } from './drawOf.ts';

/** Claims cleared together, over two server processes that both do the jobs. */
let api: TestApi;
let maeve: Client;
let odd: Client;
let siobhan: Client;
let claims: string[];
beforeAll(async () => {
  api = await startApi('clearing', { work: true });
  const tomas = await api.as('tomas.brandao');
  [maeve, odd, siobhan] = [await api.as('maeve.tarrant'), await api.as('odd.fjellheim'), await api.as('siobhan.odowd')];
  claims = await cleanClaims({ claimant: tomas, approver: siobhan }, 12);
});
afterAll(() => api.close());

async function begin(numbers: string[], who = maeve) {
  const chosen = await Promise.all(
    numbers.map(async (number) => ({ number, revision: (await viewOf(maeve, number)).claim.revision })),
  );
  return who.post('/clearings', { claims: chosen });
}
const runOf = async (run: string, who = maeve) => (await who.get(`/clearings/${run}`)).body;
async function done(run: string) {
  for (let i = 0; i < 400; i += 1) {
    const seen = await runOf(run);
    if (seen.state === 'done') return seen;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('the run did not end');
}
const clears = async (number: string) =>
  (await api.owner('events').where({ record_kind: 'claim', record_id: number, kind: 'cleared' })).length;

describe('the draw', () => {
  it('takes a share, rounded up and at least one', () => {
    expect([drawnCount(0, 10), drawnCount(1, 10), drawnCount(45, 10), drawnCount(3, 0), drawnCount(3, 100)]).toEqual([
      0, 1, 5, 1, 3,
    ]);
  });
  it('depends on the seed and the claims alone, and can be made again', () => {
    const numbers = Array.from({ length: 60 }, (_, i) => `C-${i}`);
    const drawn = drawOf(numbers, 'a'.repeat(64), 6);
    expect(drawOf([...numbers].reverse(), 'a'.repeat(64), 6)).toEqual(drawn);
    expect(drawOf(numbers, 'b'.repeat(64), 6)).not.toEqual(drawn);
    const lots = numbers.map((n) => sha256(`${'a'.repeat(64)} ${n}`)).sort();
    expect(drawn.map((n) => sha256(`${'a'.repeat(64)} ${n}`))).toEqual(lots.slice(0, 6));
  });
  it('gives every claim the same chance', () => {
    const numbers = Array.from({ length: 10 }, (_, i) => `C-${i}`);
    const times = new Map(numbers.map((n) => [n, 0]));
    for (let seed = 0; seed < 3000; seed += 1)
      for (const n of drawOf(numbers, sha256(String(seed)), 2)) times.set(n, times.get(n)! + 1);
    // chi-squared with 9 degrees of freedom: beyond 27.88 once in a thousand (NIST/SEMATECH e-Handbook, table 1.3.6.7.4)
    const chi = [...times.values()].reduce((a, n) => a + (n - 600) ** 2 / 600, 0);
    expect(chi).toBeLessThan(27.88);
  });
});

describe('claims cleared together', () => {
  it('are cleared once each, but for those drawn, which the seed draws again', async () => {
    const chosen = claims.slice(0, 6);
    const { status, body } = await begin([...chosen, 'C-1001']);
    expect(status).toBe(201);
    const run = await done(body.run);
    expect([run.chosen, run.cleared, run.drawn, run.leftOut]).toEqual([7, 5, 1, 1]);
    const drawn = run.items.filter((i: any) => i.outcome === 'drawn').map((i: any) => i.number);
    expect(drawn).toEqual(drawOf(chosen, run.seed, 1));
    expect(run.items.find((i: any) => i.number === 'C-1001')).toMatchObject({
      outcome: 'left out',
      says: 'Not everything of it is tied.',
    });
    for (const number of chosen) {
      const { claim, history } = await viewOf(maeve, number);
      const out = drawn.includes(number);
      expect([number, claim.state, claim.clearedBy]).toEqual([
        number,
        out ? 'in review' : 'cleared',
        out ? null : 'Maeve Tarrant',
      ]);
      expect(history.at(-1)).toMatchObject({
        kind: out ? 'drawn for a full look' : 'cleared',
        actor: 'Maeve Tarrant',
        facts: out ? { run: body.run, seed: run.seed, share: 10 } : { run: body.run },
      });
    }
  });
  it('are not drawn again, nor cleared with others, once they were drawn', async () => {
    const { claims: rows } = (await maeve.get('/claims?is=drawn')).body;
    expect(rows).toMatchObject([{ clean: false }]);
    expect(rows[0].attention[0]).toBe('drawn for a full look');
    const run = await done((await begin([rows[0].number])).body.run);
    expect(run).toMatchObject({ cleared: 0, drawn: 0, leftOut: 1 });
    const { revision } = (await viewOf(maeve, rows[0].number)).claim;
    expect((await maeve.post(`/claims/${rows[0].number}/clear`, { revision })).body.claim.state).toBe('cleared');
  });
  it('leave out by name what was changed meanwhile', async () => {
    await api
      .owner('settings')
      .insert({ key: 'clearing-draw-percent', value: JSON.stringify(1) })
      .onConflict('key')
      .merge();
    const chosen = claims.slice(6, 9);
    const seen = await Promise.all(
      chosen.map(async (n) => ({ number: n, revision: (await viewOf(maeve, n)).claim.revision })),
    );
    await maeve.post(`/claims/${chosen[1]}/hold`, { revision: seen[1]!.revision, reason: 'Wait', until: '2031-01-01' });
    const run = await done((await maeve.once('meanwhile').post('/clearings', { claims: seen })).body.run);
    expect(run.items[1]).toMatchObject({
      number: chosen[1],
      outcome: 'left out',
      says: 'It was changed since you chose it.',
    });
    expect([run.cleared, run.drawn]).toEqual([1, 1]);
    const again = await maeve.once('meanwhile').post('/clearings', { claims: seen });
    expect(again.body.run).toBe(run.run);
  });
  it('show from then on what was found when they were left out', async () => {
    const key = () => api.owner('claims').where({ number: 'C-1002' });
    const { id } = await key().first('id');
    const { ties } = await api.owner('assessments').where({ claim_id: id }).first('ties');
    const tied = ties.map((t: any) => ({ ...t, state: t.state === 'none' ? 'none' : 'tied' }));
    const isClean = async () => ((await key().first(api.owner.raw(`'clean' = any(facets) as clean`))) as any).clean;
    const [tomas] = [await api.as('tomas.brandao')];
    const others = await cleanClaims({ claimant: tomas, approver: siobhan }, 8, { daysAgo: 40, purpose: 'Beside it' });
    let found: any;
    // as it was computed before something came that speaks against it; where it is drawn the draw is taken back
    for (const other of others) {
      await api
        .owner('assessments')
        .where({ claim_id: id })
        .update({ ties: JSON.stringify(tied) });
      await key().update({ facets: api.owner.raw(`array_append(facets, 'clean')`), drawn_at: null });
      const run = await done((await begin(['C-1002', other])).body.run);
      found = run.items.find((i: any) => i.number === 'C-1002');
      if (found.outcome === 'left out') break;
    }
    expect(found).toMatchObject({ outcome: 'left out', says: expect.stringContaining('1 comparison is not tied') });
    await expect.poll(isClean).toBe(false);
    const { ties: shown } = await viewOf(maeve, 'C-1002');
    expect(shown.find((t: any) => t.line === '3' && t.kind === 'receipt').shown).toBe('off');
  });
  it('stop and go on, and end once', async () => {
    const chosen = claims.slice(9);
    const { body } = await begin(chosen);
    await maeve.post(`/clearings/${body.run}/stop`);
    const stopped = await runOf(body.run);
    expect(['stopped', 'done']).toContain(stopped.state);
    await new Promise((resolve) => setTimeout(resolve, 800));
    expect((await runOf(body.run)).cleared).toBe(stopped.cleared);
    if (stopped.state === 'stopped')
      expect((await maeve.post(`/clearings/${body.run}/resume`)).body.state).toBe('running');
    const run = await done(body.run);
    expect([run.cleared, run.drawn]).toEqual([2, 1]);
    for (const { number, outcome } of run.items) expect(await clears(number)).toBe(outcome === 'cleared' ? 1 : 0);
    expect((await maeve.post(`/clearings/${body.run}/resume`)).body.code).toBe('not-found');
  });
  it('are begun, seen and stopped by whoever chose them alone', async () => {
    const { runs } = (await maeve.get('/clearings')).body;
    expect(runs.length).toBeGreaterThan(2);
    // nobody knows a seed before: 256 bits, and others each time
    const seeds: string[] = (await api.owner('clearing_runs').select('seed')).map((r) => r.seed);
    expect([new Set(seeds).size, seeds.filter((seed) => !/^[0-9a-f]{64}$/.test(seed))]).toEqual([seeds.length, []]);
    expect((await odd.get('/clearings')).body.runs).toEqual([]);
    expect((await odd.get(`/clearings/${runs[0].run}`)).body.code).toBe('not-found');
    const ines = await api.as('ines.quadros');
    expect((await ines.post(`/clearings/${runs[0].run}/stop`)).body.code).toBe('not-found');
    expect((await ines.post(`/clearings/${runs[0].run}/resume`)).body.code).toBe('not-found');
    const begun = { person_id: 'P01', begun_at: new Date(), seed: 'a'.repeat(64), share: 10, proof_hash: 'nobody’s' };
    const [{ id }] = await api.owner('clearing_runs').insert(begun).returning('id');
    expect((await ines.post(`/clearings/${id}/stop`)).body.code).toBe('not-found');
    expect((await api.owner('clearing_runs').where({ id }).first('stopped_at')).stopped_at).toBeNull();
    expect((await begin(claims.slice(0, 1), odd)).body.code).toBe('not-allowed');
    expect((await begin(['C-1007'])).body.code).toBe('not-found');
  });
});

describe('the database', () => {
  it('begins no run, and goes on with none, in the name of somebody who does not show that it is them', async () => {
    const begun = api.app.raw(`select begin_clearing('P01', 'guessed', now(), repeat('a', 64), 10, 'x')`);
    await expect(begun).rejects.toMatchObject({ code: 'EB007' });
    const [{ id }] = await api.owner('clearing_runs').orderBy('id').limit(1);
    const resumed = api.app.raw(`select resume_clearing(?, 'P01', 'guessed', 'x')`, [id]);
    await expect(resumed).rejects.toMatchObject({ code: 'EB007' });
    await expect(api.app('clearing_runs').insert({ person_id: 'P01' } as never)).rejects.toMatchObject({
      code: '42501',
    });
    await expect(
      api
        .app('clearing_runs')
        .where({ id })
        .update({ ended_at: null } as never),
    ).rejects.toMatchObject({
      code: '23001',
    });
    await expect(api.app('clearing_runs').update({ proof_hash: 'y' } as never)).rejects.toMatchObject({
      code: '42501',
    });
  });
});
