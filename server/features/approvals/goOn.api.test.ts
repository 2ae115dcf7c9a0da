import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { advanceActs } from '../../../test/fixtures/advances.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { goOnWithRoutes } from './goOn.service.ts';

/** Routes go on when those they wait for left, lost the role, or are stood in for; and a day is that of the entity. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
let ahead = 0;
beforeAll(async () => {
  api = await startApi('goon', { clock: { now: () => new Date(Date.now() + ahead) } });
  of = await claimsOfTomas(api);
  await api.owner('budgets').update({ amount: 90_000_000 });
});
afterEach(async () => {
  ahead = 0;
  await api.owner('substitutes').delete();
  await api.owner('people').update({ active: true });
  await api.owner('person_roles').where({ person_id: 'P09', role: 'approver' }).update({ valid_to: null });
  await api.owner('entities').where({ id: 'IE' }).update({ time_zone: 'Europe/Dublin' });
});
afterAll(() => api.close());

const SIOBHAN = 'P09';
const REN = 'P07';
const decidersOf = async (number: string): Promise<string[]> =>
  (await api.owner('claims').where({ number }).first('deciders')).deciders;
const goOn = () => goOnWithRoutes(api.services);
const events = async (number: string) =>
  (await api.owner('events').where({ record_kind: 'claim', record_id: number }).orderBy('seq')).map((e: any) => e.kind);

describe('a record that waits for somebody', () => {
  it('who left goes on with who decides now, who hears of it; once', async () => {
    const number = await of.submitted([of.line('41.00')]);
    expect(await decidersOf(number)).toEqual([SIOBHAN]);
    await api.owner('people').where({ id: SIOBHAN }).update({ active: false });
    await goOn();
    const now = await decidersOf(number);
    expect(now).not.toContain(SIOBHAN);
    expect(now).toHaveLength(1);
    expect((await events(number)).at(-1)).toBe('route went on');
    const heard = await api.owner('messages').where({ record_id: number, person_id: now[0], event: 'route went on' });
    expect(heard).toHaveLength(1);
    await goOn();
    expect((await events(number)).filter((kind: string) => kind === 'route went on')).toHaveLength(1);
    // and what is shown of the route is what waits
    const { levels } = (await of.by.tomas.get(`/approval-routes/claim/${number}`)).body;
    expect(levels.flatMap((l: any) => l.needs).filter((n: any) => n.waiting)).toHaveLength(1);
  });
  it('who no longer decides goes on, and so do plans and advances', async () => {
    const acts = await advanceActs(api);
    const advance = await acts.asked();
    await api
      .owner('person_roles')
      .where({ person_id: SIOBHAN, role: 'approver' })
      .update({ valid_to: daysAgo(1) });
    await goOn();
    const row = await api.owner('advances').where({ id: advance }).first('deciders');
    expect(row.deciders).not.toContain(SIOBHAN);
    expect(row.deciders.length).toBeGreaterThan(0);
  });
  it('who is away goes on with their substitute, and back when that ends', async () => {
    const number = await of.submitted([of.line('42.00')]);
    await api.owner('substitutes').insert({ person_id: SIOBHAN, substitute_id: REN, valid_from: daysAgo(1) });
    await goOn();
    expect(await decidersOf(number)).toEqual([REN]);
    await api.owner('substitutes').delete();
    await goOn();
    expect(await decidersOf(number)).toEqual([SIOBHAN]);
  });
  it('keeps what was decided: nobody is asked twice', async () => {
    const number = await of.submitted([
      of.line('1600.00', { coding: { costCentre: '430', fund: '10', project: 'FLAT-07', spendType: 'materials' } }),
      of.line('900.00'),
    ]);
    of.fine(await of.act('siobhan', number, 'approve'));
    expect([...(await decidersOf(number))].sort()).toEqual(['P03', REN]);
    await api.owner('people').where({ id: REN }).update({ active: false });
    await goOn();
    const now = await decidersOf(number);
    expect(now).toContain('P03');
    expect(now).not.toContain(REN);
    expect(now).not.toContain(SIOBHAN);
    const needs = await api.owner('approval_needs').where({ record_id: number }).whereNotNull('decided_by');
    expect(needs.map((n: any) => n.decided_by)).toEqual([SIOBHAN]);
  });
  it('about a code asks who answers for it now', async () => {
    const number = await of.inReview([of.line('43.00')]);
    const coding = { costCentre: '430', fund: '10', project: 'FLAT-07', spendType: 'materials' };
    of.fine(await of.correct(number, '1', { coding }));
    const owners = async () => (await api.owner('claims').where({ number }).first('code_owners')).code_owners;
    expect(await owners()).toEqual([REN]);
    await api.owner('people').where({ id: REN }).update({ active: false });
    await goOn();
    expect(await owners()).not.toContain(REN);
    expect((await owners()).length).toBeGreaterThan(0);
  });
  it('goes on by itself when master data changed', async () => {
    const asked = await api.owner('pgboss.job').where({ name: 'go-on-with-routes' }).count({ n: '*' }).first();
    const revision = 0;
    const row = { person: 'P06', substitute: REN };
    expect((await of.by.leilani.post('/setup/substitutes', { revision, row, validFrom: daysAgo(1) })).status).toBe(201);
    const after = await api.owner('pgboss.job').where({ name: 'go-on-with-routes' }).count({ n: '*' }).first();
    expect(Number(after!.n)).toBe(Number(asked!.n) + 1);
  });
});

describe('a substitution', () => {
  it('holds by the day where the entity is, from its first minute to its last', async () => {
    await api.owner('entities').where({ id: 'IE' }).update({ time_zone: 'Asia/Tokyo' });
    const day = daysAgo(0);
    // submitted before all that is looked at: what is done to a claim is never dated before what was done to it
    ahead = new Date(`${daysAgo(1)}T12:00:00Z`).getTime() - Date.now();
    const number = await of.submitted([of.line('44.00')]);
    await api.owner('substitutes').insert({ person_id: SIOBHAN, substitute_id: REN, valid_from: day, valid_to: day });
    const at = async (time: string) => {
      ahead = new Date(`${time}Z`).getTime() - Date.now();
      const { body } = await of.by.ren.get('/approvals');
      return body.waiting.some((w: any) => w.number === number);
    };
    // Tokyo is nine hours ahead: its day begins at 15:00 UTC of the day before and ends at 15:00 UTC
    expect(await at(`${daysAgo(1)}T14:59:00`)).toBe(false);
    expect(await at(`${daysAgo(1)}T15:01:00`)).toBe(true);
    expect(await at(`${day}T14:59:00`)).toBe(true);
    expect(await at(`${day}T23:45:00`)).toBe(false);
    const { revision } = await api.owner('claims').where({ number }).first('revision');
    const late = await of.by.ren.post(`/claims/${number}/approve`, { revision });
    expect(late.status).not.toBe(200);
    ahead = new Date(`${day}T14:00:00Z`).getTime() - Date.now();
    expect((await of.by.ren.post(`/claims/${number}/approve`, { revision })).status).toBe(200);
  });
  it('and a role hold by the day of the entity they are for', async () => {
    await api.owner('entities').where({ id: 'IE' }).update({ time_zone: 'Pacific/Pago_Pago' });
    const day = daysAgo(0);
    await api
      .owner('person_roles')
      .where({ person_id: 'P01', role: 'reviewer' })
      .update({ valid_to: day, entity_id: 'IE' });
    const looks = async (time: string) => {
      ahead = new Date(`${time}Z`).getTime() - Date.now();
      return (await (await api.as('maeve.tarrant')).get('/claims')).status;
    };
    // eleven hours behind: the day ends at 11:00 UTC of the next one
    expect(await looks(`${daysAgo(-1)}T10:59:00`)).toBe(200);
    expect(await looks(`${daysAgo(-1)}T11:01:00`)).toBe(403);
    await api
      .owner('person_roles')
      .where({ person_id: 'P01', role: 'reviewer' })
      .update({ valid_to: null, entity_id: null });
  });
});
