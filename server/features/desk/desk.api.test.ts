import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { mark, viewOf } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { endHolds } from '../claims/holds.service.ts';

/** The queue narrowed in every way, its filters kept under names, and who has a claim open. */
let api: TestApi;
let maeve: Client;
let ines: Client;
let tomas: Client;
let now = new Date();
beforeAll(async () => {
  api = await startApi('desk', { clock: { now: () => now } });
  await comeIn();
});
/** Everybody signs in, as they do on another day. */
async function comeIn(): Promise<void> {
  [maeve, ines, tomas] = await Promise.all([api.as('maeve.tarrant'), api.as('ines.quadros'), api.as('tomas.brandao')]);
}
afterAll(() => api.close());

const rows = async (query = '', who = maeve) => (await who.get(`/claims?${query}`)).body.claims as any[];
const listed = async (query: string, who = maeve) => (await rows(query, who)).map((c) => c.number).sort();
const act = async (number: string, what: string, body: object = {}) =>
  maeve.post(`/claims/${number}/${what}`, { revision: (await viewOf(maeve, number)).claim.revision, ...body });
const NOTHING: string[] = [];

describe('the queue', () => {
  it('is narrowed by where, who, how much and how old, each as the claims say', async () => {
    const all = await rows();
    const total = async (number: string) => Number((await api.owner('claims').where({ number }).first('total')).total);
    expect(await listed('entity=JP')).toEqual(
      all
        .filter((c) => c.entity === 'JP')
        .map((c) => c.number)
        .sort(),
    );
    expect(await listed('person=mbaya')).toEqual(
      all
        .filter((c) => c.claimant.includes('Mbaya'))
        .map((c) => c.number)
        .sort(),
    );
    const big = await listed('min=700');
    for (const { number } of all)
      expect([number, big.includes(number)]).toEqual([number, (await total(number)) >= 700]);
    expect(await listed('min=700&max=699')).toEqual(NOTHING);
    const day = now.toISOString().slice(0, 10);
    const age = (c: any) => Math.round((Date.parse(day) - Date.parse(c.submittedOn)) / 86_400_000);
    expect(await listed('older=18')).toEqual(
      all
        .filter((c) => age(c) >= 18)
        .map((c) => c.number)
        .sort(),
    );
  });
  it('is narrowed by code, category and comparison; several codes are all wanted', async () => {
    const all = await rows();
    const codes = await Promise.all(
      all.filter((c) => !c.own).map(async ({ number }) => ({ number, ...(await facts(number)) })),
    );
    const with410 = codes.filter((c) => c.codes.has('costCentre:410')).map((c) => c.number);
    expect((await listed('code=costCentre:410')).filter((n) => n !== 'C-1007')).toEqual(with410.sort());
    const both = codes.filter((c) => c.codes.has('costCentre:410') && c.codes.has('fund:10')).map((c) => c.number);
    expect((await listed('code=costCentre:410,fund:10')).filter((n) => n !== 'C-1007')).toEqual(both.sort());
    const lodging = codes.filter((c) => c.categories.has('lodging')).map((c) => c.number);
    expect((await listed('category=lodging')).filter((n) => n !== 'C-1007')).toEqual(lodging.sort());
    const taxOff = all.filter((c) => ['off', 'open'].includes(c.ties.tax)).map((c) => c.number);
    expect([await listed('off=tax'), taxOff.length > 0]).toEqual([taxOff.sort(), true]);
  });
  it('follows what is done: waived, held, asked, corrected', async () => {
    const [{ number }] = (await rows('off=tax')) as [any];
    await mark(maeve, number, { line: await looseLine(number, 'tax'), kind: 'tax', mark: 'waived', reason: 'Agreed' });
    expect((await rows('off=tax')).find((c) => c.number === number)?.ties.tax).not.toBe('waived');
    expect(await listed('is=mine')).toContain(number);
    expect(await listed('is=mine', ines)).not.toContain(number);
    await act('C-1005', 'hold', { reason: 'Bank slip', until: addDays(2) });
    expect([await listed('is=held'), await listed('is=overdue')]).toEqual([['C-1005'], NOTHING]);
    expect(await listed('is=clean')).not.toContain('C-1005');
    await act('C-1004', 'queries', { line: '1', text: 'Why?' });
    expect(await listed('is=waiting')).toEqual(NOTHING);
    await act('C-1004', 'send-queries');
    expect(await listed('is=waiting')).toEqual(['C-1004']);
    expect(await listed('is=waiting,held')).toEqual(NOTHING);
  });
  it('puts what is on hold last, and back in its place when the day has come', async () => {
    const place = async () => (await rows()).findIndex((c) => c.number === 'C-1005');
    const last = (await rows()).length - 1;
    expect(await place()).toBe(last);
    now = new Date(now.getTime() + 3 * 86_400_000);
    await comeIn();
    await endHolds(api.services);
    expect(await place()).toBeLessThan(last);
    expect(await listed('is=overdue')).toEqual(['C-1005']);
    expect((await rows()).find((c) => c.number === 'C-1005').attention[0]).toMatch(/^its hold ended on /);
  });
  it('tells nobody by a filter what finance thinks of their own claim', async () => {
    const own = (await rows('state=any')).filter((c) => c.own).map((c) => c.number);
    expect(own).toContain('C-1007');
    const loose = await listed('is=clean', ines);
    expect(loose).toContain('C-1007');
    expect(await listed('is=clean')).not.toContain('C-1007');
    const inesOwn = (await rows('', ines)).find((c) => c.own).number;
    expect(await listed('off=receipt')).toContain(inesOwn);
    expect(await listed('off=receipt', ines)).not.toContain(inesOwn);
    expect((await rows('', ines)).find((c) => c.own)).toMatchObject({ ties: {}, attention: [], atRisk: null });
  });
  it('calls a claim the first of its person by the day it was handed in, not by when it was begun', async () => {
    const claims = () => api.owner('claims');
    const { earlier, later } = await claims()
      .from('claims as a')
      .join('claims as b', (on) => on.on('b.claimant_id', 'a.claimant_id').andOn('b.id', '>', 'a.id'))
      .where({ 'a.state': 'in review', 'b.state': 'in review' })
      .first('a.number as earlier', 'b.number as later');
    const nth = async (number: string) =>
      (await rows()).find((c) => c.number === number).attention.find((s: string) => s.endsWith('claim of this person'));
    const handIn = (number: string, day: string) => claims().where({ number }).update({ submitted_on: day });
    await handIn(earlier, '2020-01-02');
    await handIn(later, '2020-01-03');
    expect([await nth(earlier), await nth(later)]).toEqual([
      'first claim of this person',
      'second claim of this person',
    ]);
    await handIn(later, '2020-01-01');
    expect([await nth(later), await nth(earlier)]).toEqual([
      'first claim of this person',
      'second claim of this person',
    ]);
  });
  it('refuses what is no filter, saying what one would be', async () => {
    for (const [query, field] of [
      ['code=410', 'code'],
      ['is=purple', 'is'],
      ['min=much', 'min'],
      ['older=-1', 'older'],
      ['off=colour', 'off'],
      ['colour=red', 'colour'],
    ]) {
      const { status, body } = await maeve.get(`/claims?${query}`);
      expect([query, status, body.numbers.problem.includes(field)]).toEqual([query, 400, true]);
    }
  });
  it('is a file with everything the filter lists, and nothing of one’s own that is not told', async () => {
    const csv = (await maeve.get('/claims.csv?state=any')).body as string;
    const lines = csv.trim().split('\r\n');
    const { counts } = (await maeve.get('/claims')).body;
    expect(lines).toHaveLength(1 + Object.values<number>(counts).reduce((a, n) => a + n, 0));
    expect(lines[0]).toContain('number,state,entity,claimant');
    expect(lines.find((l) => l.startsWith('C-1007'))).toMatch(/,,/);
    expect((await maeve.get('/claims.csv?entity=JP')).body.trim().split('\r\n').length - 1).toBe(
      (await rows('entity=JP')).length,
    );
    expect((await tomas.get('/claims.csv')).status).toBe(403);
  });
});

async function facts(number: string) {
  const { document, assessment } = await viewOf(maeve, number);
  const shares = assessment.lines.flatMap((l: any) => l.parts.flatMap((p: any) => p.shares));
  const lines = document.claim.lines.flatMap((l: any) => [l, ...(l.items ?? [])]);
  return {
    codes: new Set<string>(shares.flatMap((s: any) => Object.entries(s.coding).map(([d, c]) => `${d}:${String(c)}`))),
    categories: new Set<string>(lines.map((l: any) => l.category)),
  };
}
const looseLine = async (number: string, kind: string): Promise<string> =>
  (await viewOf(maeve, number)).ties.find((t: any) => t.kind === kind && ['off', 'open'].includes(t.shown)).line;
const addDays = (days: number): string => new Date(now.getTime() + days * 86_400_000).toISOString().slice(0, 10);

describe('filters under a name', () => {
  const views = async (who: Client) =>
    (await who.get('/desk/views')).body.views.map((v: any) => [v.name, v.query, v.own]);
  it('are one’s own until they are shared, replaced by the same name, and given up by their owner', async () => {
    await maeve.post('/desk/views', { name: 'Old ones', shared: false, query: 'older=18' });
    await maeve.post('/desk/views', { name: 'Japan', shared: true, query: 'entity=JP' });
    await maeve.post('/desk/views', { name: 'Old ones', shared: false, query: 'older=30' });
    expect(await views(maeve)).toEqual([
      ['Japan', 'entity=JP', true],
      ['Old ones', 'older=30', true],
    ]);
    expect(await views(ines)).toEqual([['Japan', 'entity=JP', false]]);
    const [japan] = (await maeve.get('/desk/views')).body.views;
    expect((await ines.send('DELETE', `/desk/views/${japan.id}`)).body.code).toBe('not-found');
    await maeve.send('DELETE', `/desk/views/${japan.id}`);
    expect(await views(ines)).toEqual(NOTHING);
  });
  it('are not kept without end', async () => {
    const kept = Array.from({ length: 100 }, (_, i) => ({ owner_id: 'P02', name: `V ${i}`, query: 'older=9' }));
    await api.owner('desk_views').insert(kept);
    expect((await ines.post('/desk/views', { name: 'One more', shared: false, query: 'older=9' })).body.code).toBe(
      'many-kept',
    );
    const again = await ines.post('/desk/views', { name: 'V 0', shared: false, query: 'older=8' });
    expect(again.status).toBe(201);
    await api.owner('desk_views').where({ owner_id: 'P02' }).delete();
  });
});

describe('the columns', () => {
  it('are each person’s own, and none that there is not', async () => {
    const columns = [
      { id: 'pay', width: 12 },
      { id: 'submitted', width: 6.5 },
    ];
    expect((await maeve.get('/desk/columns')).body.columns).toBeNull();
    await maeve.put('/desk/columns', { columns });
    expect((await maeve.get('/desk/columns')).body.columns).toEqual(columns);
    expect((await ines.get('/desk/columns')).body.columns).toBeNull();
    for (const wrong of [
      { id: 'shoe size', width: 9 },
      { id: 'pay', width: 99 },
    ])
      expect((await maeve.put('/desk/columns', { columns: [wrong] })).body.code).toBe('invalid');
  });
});

describe('who has a claim open', () => {
  const say = (who: Client, number = 'C-1010') => who.post(`/claims/${number}/here`);
  it('is told to others, until they leave or are silent for long', async () => {
    expect((await say(maeve)).body.others).toEqual([]);
    expect((await say(ines)).body.others).toEqual(['Maeve Tarrant']);
    expect((await rows('', ines)).find((c) => c.number === 'C-1010').here).toEqual(['Maeve Tarrant']);
    expect((await rows()).find((c) => c.number === 'C-1010').here).toEqual(['Inês Quadros']);
    await ines.send('DELETE', '/claims/C-1010/here');
    expect((await say(maeve)).body.others).toEqual([]);
    now = new Date(now.getTime() + 60_000);
    expect((await say(ines)).body.others).toEqual([]);
  });
  it('is no matter of those who make claims, nor of a claim of one’s own', async () => {
    expect((await say(tomas)).status).toBe(403);
    expect((await say(maeve, 'C-1007')).body.code).toBe('not-found');
    expect((await say(maeve, 'C-9999')).body.code).toBe('not-found');
  });
  it('remembers which version was looked at before', async () => {
    expect((await say(maeve, 'C-1001')).body.before).toBeNull();
    await api.owner('claim_looks').where({ person_id: 'P01' }).update({ version: 1 });
    const { id } = await api.owner('claims').where({ number: 'C-1001' }).first('id');
    await api.owner('claim_versions').insert({ claim_id: id, version: 2 }).onConflict().ignore();
    await api.owner('claims').where({ id }).update({ version: 2, submitted_version: 2 });
    expect([(await say(maeve, 'C-1001')).body.before, (await say(maeve, 'C-1001')).body.before]).toEqual([1, 1]);
    expect((await say(ines, 'C-1001')).body.before).toBeNull();
  });
});
