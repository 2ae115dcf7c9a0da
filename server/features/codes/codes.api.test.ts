import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** Codes as one person uses them: last used, kept first, saved under a name. */
let api: TestApi;
let tomas: Client;
let siobhan: Client;
beforeAll(async () => {
  api = await startApi('codes');
  tomas = await api.as('tomas.brandao');
  siobhan = await api.as('siobhan.odowd');
});
afterAll(() => api.close());
const own = async (who = tomas) => (await who.get('/own/codes')).body;

describe('codes that were used last', () => {
  const recent = async (dimension: string | null, who = tomas) =>
    (await own(who)).recent.find((r: any) => r.dimension === dimension)?.codes;
  it('are those of lines, shares and claims one makes, the newest first, at most five of each', async () => {
    const { number } = (await tomas.post('/drafts', { purpose: 'Terns', coding: { costCentre: '440' } })).body;
    const line = { date: '2026-11-02', amount: { amount: '9.00', currency: 'EUR' }, category: 'hire' };
    const shares = [{ coding: { fund: '30' } }, { coding: { fund: '20' } }];
    const lines = [{ ...line, coding: { project: 'MUD-2' }, split: { by: 'equal', shares } }];
    await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines });
    expect((await recent('costCentre'))[0]).toBe('440');
    expect((await recent('project'))[0]).toBe('MUD-2');
    expect((await recent('fund')).slice(0, 2).sort()).toEqual(['20', '30']);
    expect((await recent(null))[0]).toBe('hire');
    for (const { codes } of (await own()).recent) expect(codes.length).toBeLessThanOrEqual(5);
  });
  it('are nobody else’s', async () => {
    expect((await recent('project', siobhan)) ?? []).not.toContain('MUD-2');
  });
});

describe('codes kept first', () => {
  const keep = (dimension: string | null, code: string, on: boolean) =>
    tomas.put('/own/codes/favourites', { dimension, code, on });
  it('are kept once, of dimensions and of categories, until they are not', async () => {
    await keep('fund', '30', true);
    await keep('fund', '30', true);
    const both = await keep(null, 'meal', true);
    expect(both.body.favourites).toEqual([
      { dimension: 'fund', code: '30' },
      { dimension: null, code: 'meal' },
    ]);
    expect((await own(siobhan)).favourites).toEqual([]);
    expect((await keep(null, 'meal', false)).body.favourites).toEqual([{ dimension: 'fund', code: '30' }]);
    expect((await keep('no-such', '1', true)).status).toBe(404);
  });
});

it('nobody keeps more than can be looked through', async () => {
  const wanjiru = await api.as('wanjiru.mbaya');
  const codes = Array.from({ length: 200 }, (_, i) => ({ person_id: 'P08', dimension_id: 'fund', code: `${i}` }));
  await api.owner('favourite_codes').insert(codes);
  const codings = codes.map(({ code }) => ({ person_id: 'P08', name: code, coding: '{}' }));
  await api.owner('own_codings').insert(codings);
  const kept = await wanjiru.put('/own/codes/favourites', { dimension: 'fund', code: 'x', on: true });
  const saved = await wanjiru.post('/own/codes/codings', { name: 'x', coding: {} });
  expect([kept.body.code, saved.body.code]).toEqual(['many-kept', 'many-kept']);
});

describe('saved codings', () => {
  const split = { by: 'equal', shares: [{ coding: { fund: '10' } }, { coding: { fund: '20' } }] };
  const save = (name: string, coding: object, more = {}, who = tomas) =>
    who.post('/own/codes/codings', { name, coding, ...more });
  const said = async (who = tomas) => (await own(who)).codings.map((c: any) => [c.name, c.coding, c.split]);

  it('are one’s own, replaced by name and forgotten', async () => {
    await save('Usual', { fund: '10' });
    await save('Halves', {}, { split });
    await save('Usual', { fund: '20' });
    expect(await said()).toEqual([
      ['Halves', {}, split],
      ['Usual', { fund: '20' }, null],
    ]);
    expect(await said(siobhan)).toEqual([]);
    const [halves] = (await own()).codings;
    expect((await siobhan.send('DELETE', `/own/codes/codings/${halves.id}`)).status).toBe(404);
    expect((await tomas.send('DELETE', `/own/codes/codings/${halves.id}`)).body.codings).toHaveLength(1);
    expect((await save(' ', {})).status).toBe(400);
  });

  it('stand beside those that everybody of one’s entity has today', async () => {
    const leilani = await api.as('leilani.kahue');
    const preset = (id: string, rule: object, validTo: string | null = null) =>
      leilani.post('/setup/coding-presets', { revision: 0, row: { id, rule }, validFrom: '2026-01-01', validTo });
    await preset('all', { name: 'Core costs', coding: { fund: '10' } });
    await preset('jp', { name: 'Tokyo', entity: 'JP', coding: { fund: '20' } });
    await preset('past', { name: 'Past', coding: { fund: '30' } }, '2026-01-31');
    expect((await said(siobhan)).map(([name]: [string]) => name)).toEqual(['Core costs']);
    const aoi = await own(await api.as('aoi.kuramochi'));
    expect(aoi.codings.map((c: any) => [c.name, c.id])).toEqual([
      ['Core costs', null],
      ['Tokyo', null],
    ]);
  });
});
