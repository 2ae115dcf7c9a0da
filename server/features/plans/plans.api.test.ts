import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { clear, handIn, post } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { lapsePlans } from './decide.service.ts';

let api: TestApi;
let tomas: Client;
let siobhan: Client;
beforeAll(async () => {
  api = await startApi('plans');
  tomas = await api.as('tomas.brandao');
  siobhan = await api.as('siobhan.odowd');
});
afterAll(() => api.close());

const today = new Date().toISOString().slice(0, 10);
const inDays = (days: number) => addDays(today, days);
const TRIP = { purpose: 'Seagrass count', kind: 'field-abroad', country: 'PT', from: inDays(10), to: inDays(14) };
const PLAIN = { costCentre: '410', fund: '10' };
const PRICES: [string, string][] = [
  ['1', '300.00'],
  ['4', '90.00'],
  ['5', '20.00'],
];

async function begun(fields: object = {}, who = tomas): Promise<string> {
  const begun = await who.post('/plans', { ...TRIP, coding: PLAIN, ...fields });
  expect(begun.status).toBe(201);
  return begun.body.number;
}
/** A plan whose every estimate has a price. */
async function priced(fields: object = {}, who = tomas): Promise<string> {
  const number = await begun(fields, who);
  for (const [id, amount] of PRICES) await set(number, [id], { price: { amount, currency: 'EUR' } }, who);
  return number;
}
const view = async (number: string, who = tomas) => (await who.get(`/plans/${number}`)).body;
const revision = async (number: string, who = tomas) => (await view(number, who)).plan.revision as number;
const set = async (number: string, ids: string[], fields: object, who = tomas, more: object = {}) =>
  who.put(`/plans/${number}/estimates`, { revision: await revision(number, who), ids, set: fields, ...more });
const act = async (number: string, name: string, who = tomas, more: object = {}) =>
  who.post(`/plans/${number}/${name}`, { revision: await revision(number, who), ...more });
const amounts = (answer: any) => Object.fromEntries(answer.estimates.map((e: any) => [e.id, e.amount]));
const problems = (answer: any) => answer.problems.map((p: any) => `${p.estimate ?? ''}${p.field}`);
const reserved = async (plan: string): Promise<string> => {
  const held = api.owner('budget_movements').where({ source_kind: 'plan', source_id: plan, stage: 'reserved' });
  return (await held.sum('amount as sum'))[0]!.sum;
};

describe('a plan from a template', () => {
  it('has the lines of its kind, with what the limits of the country allow for those days', async () => {
    const answer = await view(await begun({ privateDays: [inDays(12)] }));
    expect(answer.estimates.map((e: any) => [e.category, e.count, e.price, e.amount])).toEqual([
      ['air', 1, null, null],
      ['lodging', 3, { amount: '120.00', currency: 'EUR' }, '360.00'],
      ['meal', 4, { amount: '46.00', currency: 'EUR' }, '161.00'],
      ['hire', 1, null, null],
      ['taxi', 2, null, null],
    ]);
    expect(answer.estimates[1].suggested.source).toBe('limit lodging-pt');
    expect(problems(answer)).toEqual(['1price', '4price', '5price']);
    expect((await tomas.post('/plans', { ...TRIP, coding: PLAIN, kind: 'moon' })).body.code).toBe('no-template');
    expect(answer.plan.total).toBeNull();
    expect(answer.plan).toMatchObject({ state: 'draft', kindName: 'Field work abroad', claimant: 'Tomás Brandão' });
  });

  it('says what is missing of the trip, and comes to more as it is said', async () => {
    const number = await begun({ from: undefined, to: undefined, country: undefined });
    expect(problems(await view(number))).toEqual([
      'country',
      'from',
      'to',
      '1price',
      '2count',
      '2price',
      '3count',
      '3price',
      '4price',
      '5price',
    ]);
    const put = async (fields: object) =>
      (await tomas.put(`/plans/${number}`, { revision: await revision(number), set: fields })).body;
    const answer = await put({ country: 'GB', from: inDays(3), to: inDays(5) });
    expect(amounts(answer)).toMatchObject({ 2: '220.00', 3: '105.00' });
    const gbp = answer.estimates[1];
    expect(gbp.inPlanCurrency).not.toBe(gbp.amount);
    expect(gbp.explained.map((e: any) => [e.figure, e.result])).toContainEqual(['claimAmount', gbp.inPlanCurrency]);
    expect(gbp.explained.find((e: any) => e.figure === 'claimAmount').rates[0]).toMatchObject({
      from: 'GBP',
      to: 'EUR',
      reciprocal: true,
    });
    expect((await put({ to: inDays(2) })).code).toBe('invalid');
    expect((await put({ privateDays: [inDays(90)] })).problems[0]).toMatchObject({ field: 'privateDays' });
  });

  it('takes what is typed instead, in any currency with a rate, and says where there is none', async () => {
    const number = await priced();
    expect((await view(number)).plan.total).toBe('1117.00');
    const bhd = (await set(number, ['2'], { price: { amount: '50.125', currency: 'BHD' } })).body;
    expect(bhd.estimates[1]).toMatchObject({ amount: '200.500', priceTyped: true, countTyped: false });
    const none = (await set(number, ['2'], { price: { amount: '10.00', currency: 'CAD' } })).body;
    expect([none.plan.total, problems(none)]).toEqual([null, ['2price']]);
    expect((await act(number, 'submit')).body.code).toBe('plan-incomplete');
    const back = (await set(number, ['2'], { price: null, count: 2 })).body;
    expect(amounts(back)[2]).toBe('240.00');
    expect((await set(number, ['2'], { price: { amount: '10.0', currency: 'EUR' } })).body.code).toBe('decimals');
    for (const wrong of [{ category: 'yacht' }, { count: -1 }, { per: 'week' }])
      expect((await set(number, ['2'], wrong)).status).toBe(400);
    expect((await set(number, ['2', '77'], { count: 9 })).body.code).toBe('no-estimate');
    expect(amounts(await view(number))[2]).toBe('240.00');
  });

  it('mends a fault of its coding on several estimates at once, and shows first what that comes to', async () => {
    const number = await priced({ coding: { costCentre: '410', fund: '30' } });
    const faults = async () => problems(await view(number)).filter((p: string) => p.endsWith('coding')).length;
    expect(await faults()).toBe(5);
    const shown = (await set(number, ['1', '2', '3'], {}, tomas, { codes: { fund: '10' }, rehearse: true })).body;
    expect(problems(shown)).toHaveLength(2);
    expect([shown.plan.revision, await faults()]).toEqual([await revision(number), 5]);
    await set(number, ['1'], { coding: { project: 'REED-11' } });
    await set(number, ['1', '2', '3'], {}, tomas, { codes: { fund: '10' } });
    expect(await faults()).toBe(2);
    expect((await view(number)).estimates[0].coding).toEqual({ project: 'REED-11', fund: '10' });
  });

  it('gives a number once, and refuses what was seen before a change', async () => {
    const number = await begun();
    const seen = await revision(number);
    const del = (id: string, at: number) => tomas.send('DELETE', `/plans/${number}/estimates/${id}?revision=${at}`);
    expect((await del('5', seen)).body.estimates).toHaveLength(4);
    expect((await del('4', seen)).body.code).toBe('stale');
    const more = { revision: seen + 1, estimates: [{ category: 'phone', per: 'day', description: 'Data' }] };
    const added = (await tomas.post(`/plans/${number}/estimates`, more)).body;
    expect(added.estimates.map((e: any) => e.id)).toEqual(['1', '2', '3', '4', '6']);
    expect((await del('5', seen + 2)).body.code).toBe('no-estimate');
  });
});

describe('a plan is decided about', () => {
  it('by the usual approver alone, once it is complete', async () => {
    const number = await begun();
    expect((await act(number, 'submit')).body.code).toBe('plan-incomplete');
    expect((await siobhan.get(`/plans/${number}`)).status).toBe(404);
    const whole = await priced();
    expect((await act(whole, 'submit')).body.plan).toMatchObject({
      state: 'with approver',
      deciders: ['Siobhán O’Dowd'],
    });
    expect((await siobhan.get('/approvals')).body.waiting.map((w: any) => w.number)).toContain(whole);
    expect((await act(whole, 'approve')).body.code).toBe('not-allowed');
    const odd = await api.as('odd.fjellheim');
    expect((await act(whole, 'approve', odd)).body.code).toBe('not-yours');
    const stranger = await api.as('wanjiru.mbaya');
    expect((await stranger.get(`/plans/${whole}`)).status).toBe(404);
    expect((await stranger.get(`/approval-routes/plan/${whole}`)).status).toBe(404);
    expect((await siobhan.get(`/approval-routes/plan/${whole}`)).status).toBe(200);
    expect((await stranger.post(`/plans/${whole}/withdraw`, { revision: 1 })).body.code).toBe('not-found');
    expect((await act(whole, 'decline', siobhan)).body.code).toBe('invalid');
    const done = (await act(whole, 'approve', siobhan, { comment: 'Mind the tide.' })).body;
    expect(done.plan).toMatchObject({ state: 'approved', approvedOn: today });
    expect(done.history.at(-1).words).toEqual({ comment: 'Mind the tide.' });
    expect((await set(whole, ['1'], { count: 9 })).body.code).toBe('wrong-state');
  });

  it('that somebody prepared for another is decided by neither', async () => {
    const hedda = await api.as('hedda.vestergaard');
    expect((await hedda.post('/plans', { ...TRIP, coding: PLAIN, claimant: 'P99' })).status).toBe(404);
    const number = await priced({ claimant: 'P05' }, hedda);
    expect((await view(number)).plan).toMatchObject({ claimant: 'Tomás Brandão', preparer: 'Hedda Vestergaard' });
    expect((await tomas.post('/plans', { ...TRIP, claimant: 'P08' })).body.code).toBe('not-yours');
    await api.owner('people').where({ id: 'P05' }).update({ usual_approver: 'P13' });
    await api.owner('people').where({ id: 'P13' }).update({ usual_approver: null });
    const nobody = (await act(number, 'submit', hedda)).body;
    expect(nobody).toMatchObject({ code: 'nobody-decides', numbers: { ask: 'Leilani Kahue' } });
    await api.owner('people').where({ id: 'P13' }).update({ usual_approver: 'P03' });
    await api.owner('people').where({ id: 'P05' }).update({ usual_approver: 'P09' });
    expect((await act(number, 'submit', hedda)).status).toBe(200);
  });
});

describe('what a plan charges to budgets', () => {
  const GRANT = { costCentre: '410', fund: '20', grant: 'G-118' };
  const granted = async (amount: string, coding: object = {}) => {
    const number = await begun({ kind: 'training', country: 'IE', coding: GRANT });
    for (const id of ['1', '2', '3']) await set(number, [id], { count: 1, price: { amount: '0.00', currency: 'EUR' } });
    await set(number, ['1'], { price: { amount, currency: 'EUR' }, coding });
    await act(number, 'submit');
    return number;
  };
  const left = async () => {
    const b = await api.owner('budgets').where({ code: 'G-118' }).first();
    return [b.reserved, b.cleared, b.posted].reduce((left: bigint, used: bigint) => left - used, b.amount as bigint);
  };

  it('is reserved while it is approved, once, and free when it ends', async () => {
    const before = await left();
    const number = await granted('21.50');
    expect(await left()).toBe(before);
    await act(number, 'approve', siobhan);
    expect([await left(), await reserved(number)]).toEqual([before - 2150n, '2150']);
    const claim = (await act(number, 'claim')).body.number;
    expect((await act(number, 'claim')).body).toMatchObject({ code: 'plan-claimed', numbers: { claim } });
    expect((await act(number, 'withdraw')).body.code).toBe('plan-claimed');
    await api
      .owner('claims')
      .where({ number: claim })
      .update({ state: 'withdrawn', submitted_version: 1, submitted_on: today });
    expect((await act(number, 'withdraw')).body.plan.state).toBe('withdrawn');
    expect(await left()).toBe(before);
  });

  it('is free again when the approval is taken back, which nobody else does, nor after its claim began', async () => {
    const before = await left();
    const number = await granted('11.50');
    await act(number, 'approve', siobhan);
    expect(await left()).toBe(before - 1150n);
    expect((await act(number, 'take-back', await api.as('odd.fjellheim'))).body.code).toBe('not-yours');
    expect((await act(number, 'take-back', siobhan)).body.plan).toMatchObject({
      ...{ state: 'with approver', approvedOn: null, deciders: ['Siobhán O’Dowd'] },
    });
    expect(await left()).toBe(before);
    await act(number, 'approve', siobhan);
    await act(number, 'claim');
    expect((await act(number, 'take-back', siobhan)).body.code).toBe('not-yours');
  });

  it('is not approved above what is left, whatever its makers are told', async () => {
    const number = await granted('1400.00');
    expect(problems(await view(number))).toEqual([]);
    expect((await view(number, siobhan)).problems[0].severity).toBe('stop');
    expect((await act(number, 'approve', siobhan)).body.code).toBe('plan-incomplete');
  });

  it('counts once when its claim is cleared, and again when that is taken back', async () => {
    const before = await left();
    const number = await granted('30.00', { project: 'REED-11' });
    await act(number, 'approve', siobhan);
    const claim = (await act(number, 'claim')).body.number as string;
    const claimView = async (who: Client) => (await who.get(`/claims/${claim}`)).body;
    const line = {
      date: inDays(-1),
      amount: { amount: '12.00', currency: 'EUR' },
      category: 'supplies',
      merchant: 'Quay Stores',
      estimate: '1',
    };
    const { claim: draft } = await claimView(tomas);
    const written = await tomas.post(`/drafts/${claim}/lines`, { revision: draft.revision, lines: [line] });
    expect(written.body.document.lines[0].coding).toEqual({ project: 'REED-11' });
    const other = { ...line, coding: { project: 'TIDE-04' }, estimate: '9' };
    const refused = await tomas.post(`/drafts/${claim}/lines`, { revision: draft.revision + 1, lines: [other] });
    expect(refused.body.code).toBe('invalid');
    const go = async (who: Client, name: string) =>
      who.post(`/claims/${claim}/${name}`, { revision: (await claimView(who)).claim.revision });
    expect((await handIn(tomas, claim)).status).toBe(200);
    await go(siobhan, 'approve');
    const maeve = await api.as('maeve.tarrant');
    const { ties, claim: seen } = await claimView(maeve);
    expect(ties.find((t: any) => t.kind === 'plan')).toMatchObject({ line: '1', state: 'tied' });
    expect([await left(), await reserved(number)]).toEqual([before - 3000n, '3000']);
    let at = seen.revision;
    for (const tie of ties.filter((t: any) => t.state === 'open' || t.state === 'off')) {
      const mark = { revision: at, line: tie.line, kind: tie.kind, about: tie.about, mark: 'waived', reason: 'Seen' };
      expect((await maeve.post(`/claims/${claim}/marks`, mark)).status).toBe(200);
      at += 1;
    }
    expect((await go(maeve, 'clear')).status).toBe(200);
    expect([await left(), await reserved(number)]).toEqual([before - 1200n, '0']);
    expect((await go(maeve, 'reopen')).status).toBe(200);
    expect([await left(), await reserved(number)]).toEqual([before - 3000n, '3000']);

    // posted it is used up, and the budget with it; reversed, neither is
    expect((await clear(maeve, claim)).status).toBe(200);
    const odd = await api.as('odd.fjellheim');
    const posted = await post(odd, claim);
    expect(posted.status, JSON.stringify(posted.body)).toBe(201);
    expect([await left(), await reserved(number)]).toEqual([before - 1200n, '0']);
    const reversal = { date: inDays(0), reason: 'Wrong grant' };
    expect((await odd.post(`/journals/${posted.body.journal}/reversal`, reversal)).status).toBe(201);
    expect([await left(), await reserved(number)]).toEqual([before - 3000n, '3000']);
    expect((await view(number)).plan.state).toBe('approved');
  });
});

describe('an approved plan of which no claim comes', () => {
  it('lapses so many days after its last one, by a setting', async () => {
    const number = await priced();
    await act(number, 'submit');
    await act(number, 'approve', siobhan);
    const past = { trip_from: inDays(-50), trip_to: inDays(-40) };
    await api.owner('plans').where({ number }).update(past);
    await lapsePlans(api.services);
    expect((await view(number)).plan.state).toBe('approved');
    await api.owner('settings').insert({ key: 'plan-lapses-after-days', value: '40' });
    await lapsePlans(api.services);
    expect((await view(number)).plan.state).toBe('approved');
    await api.owner('settings').where({ key: 'plan-lapses-after-days' }).update({ value: '39' });
    await lapsePlans(api.services);
    const { plan, history } = await view(number);
    expect([plan.state, history.at(-1).actor]).toEqual(['lapsed', null]);
  });
});
