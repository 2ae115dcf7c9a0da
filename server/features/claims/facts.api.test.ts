import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { rebuildBook } from '../../records/book/sharedBook.ts';
import { useOfBook } from '../../records/claims/usesOf.ts';
import { handIn } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { assessAgain } from './reassess.service.ts';

/** What lines say of themselves by their category, and what is computed from it. */
let api: TestApi;
let tomas: Client;
let number: string;
beforeAll(async () => {
  api = await startApi('facts');
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());
beforeEach(async () => {
  ({ number } = (
    await tomas.post('/drafts', { purpose: 'Tern count', coding: { costCentre: '410', fund: '10' } })
  ).body);
});

const view = async (of = number) => (await tomas.get(`/claims/${of}`)).body;
const revision = async () => (await view()).claim.revision as number;
const line = (fields = {}) => ({
  date: '2026-11-02',
  amount: { amount: '0.00', currency: 'EUR' },
  category: 'mileage',
  ...fields,
});
const write = async (...lines: object[]) =>
  tomas.post(`/drafts/${number}/lines`, { revision: await revision(), lines });
const edit = async (id: string, set: object) =>
  tomas.put(`/drafts/${number}/lines/${id}`, { revision: await revision(), set });
const shown = (answer: any, id: string) => answer.body.document.lines.find((l: any) => l.id === id);
const said = (answer: any, code: string) => answer.body.findings.filter((f: any) => f.code === code);
const car = (distance: string, more = {}) => ({ journey: { vehicle: 'car', distance, unit: 'km', ...more } });

describe('what a category asks for', () => {
  it('is data of the book, required or not, and a stop where it is missing', async () => {
    const missing = await write(line());
    expect(said(missing, 'field-missing').map((f: any) => [f.severity, f.line, f.says])).toEqual([
      ['stop', '1', 'The journey: fill this in.'],
    ]);
    const submit = await tomas.post(`/claims/${number}/submit`, { revision: await revision() });
    expect(submit.body.code).toBe('has-stops');
    expect(said(await edit('1', car('100')), 'field-missing')).toEqual([]);
    const asked = { fields: JSON.stringify([{ name: 'gear', label: 'The gear', need: 'required' }]) };
    await api.owner('categories').where({ id: 'hire' }).update(asked);
    // any change of master data writes the books anew
    const leilani = await api.as('leilani.kahue');
    const account = { revision: 0, row: { code: '6999', name: 'Other' } };
    expect((await leilani.post('/setup/accounts', account)).status).toBe(201);
    const hired = await write(line({ category: 'hire', amount: { amount: '9.00', currency: 'EUR' } }));
    expect(said(hired, 'field-missing').map((f: any) => f.says)).toEqual(['The gear: fill this in.']);
    expect(said(await edit('2', { fields: { gear: 'waders' } }), 'field-missing')).toEqual([]);
  });

  it('stays when another category asks for it too, and is dropped when it does not', async () => {
    const route = { fields: { route: 'Dublin to Wexford', ticket: '77-1' } };
    await write(line({ category: 'rail', amount: { amount: '20.00', currency: 'EUR' }, ...route }));
    expect(shown(await edit('1', { category: 'air' }), '1').fields).toEqual(route.fields);
    expect(shown(await edit('1', { category: 'taxi' }), '1').fields).toEqual({ route: 'Dublin to Wexford' });
    expect(shown(await edit('1', { category: 'meal', ...{ attendees: { count: 7 } } }), '1')).toMatchObject({
      fields: {},
      attendees: { count: 7 },
    });
    const few = await edit('1', { attendees: { count: 2, names: ['Ana Reis'] } });
    expect(said(few, 'field-missing')).toHaveLength(1);
    expect(shown(await edit('1', { category: 'supplies' }), '1').attendees).toBeNull();
  });

  it('is changed on several lines at once, all or none', async () => {
    const fee = line({ category: 'fee', amount: { amount: '9.00', currency: 'EUR' } });
    await write(fee, fee, fee);
    const all = async (ids: string[], set: object, codes = {}) =>
      tomas.put(`/drafts/${number}/lines`, { revision: await revision(), ids, set, codes });
    await edit('3', { coding: { grant: 'G-118' } });
    const both = await all(['1', '3'], { fields: { event: 'Reed congress' } }, { project: 'REED-11' });
    expect(shown(both, '3').coding).toEqual({ grant: 'G-118', project: 'REED-11' });
    expect(both.body.document.lines.map((l: any) => [l.coding.project ?? null, l.fields.event ?? null])).toEqual([
      ['REED-11', 'Reed congress'],
      [null, null],
      ['REED-11', 'Reed congress'],
    ]);
    expect(both.body.history.at(-1).facts.lines).toEqual(['1', '3']);
    expect((await all(['1', '9'], { date: '2026-11-05' })).body.code).toBe('not-found');
    expect((await view()).document.lines.map((l: any) => l.date)).toEqual(Array(3).fill('2026-11-02'));
  });
});

describe('a journey', () => {
  it('comes to its distance by the tiers of the year, whatever was typed', async () => {
    // 0.42 to 5,000 km, 0.24 beyond, 0.05 for each passenger and km; counted by hand
    const first = await write(line({ ...car('4900'), date: '2025-03-02' }));
    expect(shown(first, '1')).toMatchObject({ amount: '2058.00', journey: { before: '0' } });
    const second = await write(line({ ...car('200', { passengers: 1 }), date: '2025-03-04' }));
    // 100 × 0.42 + 100 × 0.24 + 200 × 0.05
    expect(shown(second, '2')).toMatchObject({ amount: '76.00', journey: { before: '4900' } });
    // the earlier one becomes shorter, so the later one lies in the first tier
    const shorter = await edit('1', car('10'));
    expect([shown(shorter, '1').amount, shown(shorter, '2').amount]).toEqual(['4.20', '94.00']);
    expect(said(shorter, 'computed-off')).toEqual([]);
    expect((await edit('2', { amount: { amount: '5.00', currency: 'EUR' } })).body.code).toBe('computed-amount');
  });

  it('counts what the person drove on claims that finance let through, and on its own, in one unit', async () => {
    await write(line({ journey: { vehicle: 'car', distance: '3000', unit: 'mile' }, date: '2024-02-01' }));
    const earlier = number;
    ({ number } = (await tomas.post('/drafts', { purpose: 'Another' })).body);
    const lines = [line({ ...car('500'), date: '2024-06-01' }), line({ ...car('10'), date: '2024-01-01' })];
    // a draft may never be handed in
    expect(shown(await write(...lines), '1').journey.before).toBe('10');
    const cleared = { state: 'cleared', cleared_by: 'P01', submitted_version: 1, submitted_on: '2024-02-02' };
    await api.owner('claims').where({ number: earlier }).update(cleared);
    ({ number } = (await tomas.post('/drafts', { purpose: 'A third' })).body);
    const next = await write(...lines);
    // 3,000 miles are 4,828.032 km, and 10 km on New Year's Day: 161.968 km at 0.42, 338.032 km at 0.24
    expect(shown(next, '1')).toMatchObject({ amount: '149.15', journey: { before: '4838.032' } });
    // what was let through counts whatever its day: distances of a year are counted once each, in the order they are let through
    expect(shown(next, '2').journey.before).toBe('4828.032');
    const wanjiru = await api.as('wanjiru.mbaya');
    const hers = (await wanjiru.post('/drafts', { purpose: 'Hers' })).body.number;
    const answer = await wanjiru.post(`/drafts/${hers}/lines`, { revision: 1, lines: lines.slice(0, 1) });
    expect(shown(answer, '1')).toMatchObject({ amount: '210.00', journey: { before: '0' } });
  });

  it('follows its rate when that changes while the claim is in preparation', async () => {
    await write(line({ journey: { vehicle: 'bicycle', distance: '100', unit: 'km' } }));
    expect((await view()).document.lines[0].amount).toBe('11.00');
    const rates = api.owner('mileage_rates').where({ id: 'cycle-eur' });
    await rates.update({ rule: api.owner.raw(`jsonb_set(rule, '{tiers,0,rate}', '"0.30"')`) });
    await rebuildBook(api.owner, 'IE');
    await assessAgain(api.services, useOfBook('IE'));
    const { document, findings } = await view();
    expect([document.lines[0].amount, findings.filter((f: any) => f.code === 'computed-off')]).toEqual(['30.00', []]);
  });

  it('without a rate says so; and cannot be of a distance that is none', async () => {
    const none = await write(line({ journey: { vehicle: 'balloon', distance: '10', unit: 'km' } }));
    expect(said(none, 'computed-missing')).toHaveLength(1);
    for (const wrong of [car('-5'), car('many'), car('5', { unit: 'league' }), car('5', { before: '0' })])
      expect((await edit('1', wrong)).status).toBe(400);
  });
});

describe('days away', () => {
  const day = (date: string, more = {}) => ({ date, country: 'PT', ...more });
  it('come to the allowance of each, in the currency of their country', async () => {
    const stay = [
      day('2026-11-02', { edge: true }),
      day('2026-11-03', { provided: ['breakfast', 'dinner'] }),
      day('2026-11-04', { private: true }),
      day('2026-11-05', { edge: true, place: 'Lisboa' }),
    ];
    // 46.00 a day, 75 % at the edges, breakfast 20 % and dinner 40 % of it; Lisboa 54.00
    const answer = await write(line({ category: 'allowance', stay }));
    expect(shown(answer, '1')).toMatchObject({ amount: '93.40', currency: 'EUR' });
    const japan = await edit('1', { stay: [day('2026-11-02', { country: 'JP' })] });
    expect(shown(japan, '1')).toMatchObject({ amount: '6000', currency: 'JPY' });
    const bahrain = await edit('1', {
      stay: [day('2026-11-02', { country: 'BH' }), day('2026-11-03', { country: 'BH' })],
    });
    expect(shown(bahrain, '1')).toMatchObject({ amount: '35.000', currency: 'BHD' });
  });
  it('in two currencies are two lines, and the one says so', async () => {
    const mixed = await write(
      line({ category: 'allowance', stay: [day('2026-11-02'), day('2026-11-03', { country: 'JP' })] }),
    );
    expect(said(mixed, 'computed-missing')).toHaveLength(1);
    expect((await edit('1', { stay: [] })).status).toBe(400);
  });
});

describe('a claim somebody prepares for another', () => {
  it('is the other’s, in their currency; neither decides about it; without the role nobody begins one', async () => {
    const hedda = await api.as('hedda.vestergaard');
    const begun = await hedda.post('/drafts', { purpose: 'For Tomás', claimant: 'P05' });
    const { claim } = (await hedda.get(`/claims/${begun.body.number}`)).body;
    expect(claim).toMatchObject({
      claimant: 'Tomás Brandão',
      preparer: 'Hedda Vestergaard',
      deciders: [],
    });
    expect((await view(begun.body.number)).may).toContain('submit');
    expect((await tomas.post('/drafts', { purpose: 'For Wanjirũ', claimant: 'P08' })).body.code).toBe('not-yours');
    expect((await hedda.get('/payees')).body.people.map((p: any) => p.id)).toContain('P05');
    expect((await tomas.get('/payees')).status).toBe(403);
  });
});

describe('a word to a finding', () => {
  it('is taken for what is said now alone, can be taken back, and does not go out when it is said no more', async () => {
    const dear = await write(line({ category: 'supplies', amount: { amount: '90.00', currency: 'EUR' } }));
    const asked = dear.body.findings.find((f: any) => f.severity === 'ask');
    const say = async (text: string, more = {}) =>
      tomas.put(`/drafts/${number}/explanations`, {
        revision: await revision(),
        line: asked.line,
        code: asked.code,
        about: asked.says,
        text,
        ...more,
      });
    for (const other of [{ about: 'Something else.' }, { line: null }, { code: 'old' }])
      expect((await say('As agreed.', other)).body.code).toBe('finding-gone');
    const said = async () => ((await view()).document.explanations ?? []).map((e: any) => e.text);
    await say('As agreed.');
    await say('As agreed with the lead.');
    expect(await said()).toEqual(['As agreed with the lead.']);
    await say('');
    expect(await said()).toEqual([]);
    await say('As agreed.');
    await edit('1', { amount: { amount: '9.00', currency: 'EUR' } });
    expect(await said()).toEqual(['As agreed.']);
    expect((await handIn(tomas, number)).status).toBe(200);
    expect(await said()).toEqual([]);
  });
});
