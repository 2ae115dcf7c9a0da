import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { systemClock, today } from '../../platform/ports/clock.ts';
import { clear, handIn, post, viewOf } from '../../../test/fixtures/acts.ts';
import { picture, sendFile } from '../../../test/fixtures/sendFile.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

const DAY = today(systemClock, 'Europe/Dublin');
const inDays = (days: number): string => addDays(DAY, days);
let api: TestApi;
const by: Record<string, Client> = {};
const MAILS = {
  tomas: 'tomas.brandao',
  siobhan: 'siobhan.odowd',
  maeve: 'maeve.tarrant',
  odd: 'odd.fjellheim',
  pavel: 'pavel.hruska',
  wanjiru: 'wanjiru.mbaya',
  ottoline: 'ottoline.vane',
  hedda: 'hedda.vestergaard',
};
beforeAll(async () => {
  api = await startApi('advances');
  const people = await api.owner('people').select('id', 'email');
  MAILS.ottoline = people.find((p: any) => p.id === 'P12').email.split('@')[0];
  for (const [name, mail] of Object.entries(MAILS)) by[name] = await api.as(mail);
});
afterAll(() => api.close());
afterEach(async () => {
  await api.owner('substitutes').delete();
});

const ASK = { kind: 'trip', purpose: 'Cash for the islands', amount: '300.00', currency: 'EUR' };
const view = async (number: string, who = 'tomas') => (await by[who]!.get(`/advances/${number}`)).body;
async function act(who: string, number: string, name: string, more: object = {}) {
  const { revision } = await api.owner('advances').where({ id: number }).first('revision');
  return by[who]!.post(`/advances/${number}/${name}`, { revision, ...more });
}
async function asked(more: object = {}, who = 'tomas'): Promise<string> {
  const begun = await by[who]!.post('/advances', { ...ASK, ...more });
  expect(begun.body.code).toBeUndefined();
  expect((await act(who, begun.body.number, 'request')).body.code).toBeUndefined();
  return begun.body.number;
}
async function granted(more: object = {}, grant: object = {}): Promise<string> {
  const number = await asked(more);
  expect((await act('siobhan', number, 'approve')).body.code).toBeUndefined();
  expect((await act('maeve', number, 'grant', { dueBy: inDays(20), ...grant })).body.code).toBeUndefined();
  return number;
}
async function paidOut(more: object = {}, payout: object = {}): Promise<string> {
  const number = await granted(more);
  expect((await act('odd', number, 'pay-out', { date: DAY, ...payout })).body.code).toBeUndefined();
  return number;
}
/** Takes what a test left out of the way of the next: an advance somebody has open counts against their next one. */
const forget = async (number: string) =>
  api.owner('advances').where({ id: number }).whereIn('state', ['draft', 'requested', 'in review', 'to pay out']).update({ state: 'withdrawn' });

describe('asking for an advance', () => {
  it('goes from a draft over its route and a reviewer to the payout, each seen by whom it concerns', async () => {
    const { number } = (await by.tomas!.post('/advances', { ...ASK, from: inDays(3), to: inDays(9) })).body;
    for (const who of ['siobhan', 'maeve', 'odd', 'wanjiru']) expect((await view(number, who)).code).toBe('not-found');
    const draft = await view(number);
    expect(draft.advance).toMatchObject({ state: 'draft', proposedDue: inDays(23), requestedOn: null, open: null });
    const edited = await by.tomas!.put(`/advances/${number}`, {
      revision: draft.advance.revision,
      set: { amount: '450.00', currency: 'EUR', purpose: 'Boats' },
    });
    expect(edited.body.advance).toMatchObject({ amount: '450.00', requested: '450.00', purpose: 'Boats' });
    expect((await by.tomas!.get(`/approval-routes/advance/${number}`)).body).toMatchObject({ submitted: false });
    await act('tomas', number, 'request');
    const waits = (await by.siobhan!.get('/approvals')).body.waiting.find((w: any) => w.number === number);
    expect(waits).toMatchObject({ kind: 'advance', amount: '450.00', usual: true, who: 'Tomás Brandão' });
    expect((await act('maeve', number, 'grant', { dueBy: inDays(20) })).body.code).toBe('wrong-state');
    await act('siobhan', number, 'approve', { comment: 'Fine.' });
    expect((await by.maeve!.get('/advances')).body.toGrant.map((a: any) => a.number)).toContain(number);
    expect((await act('siobhan', number, 'take-back')).body.advance.state).toBe('requested');
    await act('siobhan', number, 'approve');
    const less = await act('maeve', number, 'grant', { dueBy: inDays(20), amount: '400.00' });
    expect(less.body.code).toBe('invalid');
    const more = await act('maeve', number, 'grant', { dueBy: inDays(20), amount: '450.01', reason: 'x' });
    expect(more.body.code).toBe('invalid');
    expect((await act('maeve', number, 'grant', { dueBy: inDays(-1) })).body.code).toBe('day-past');
    expect((await act('odd', number, 'grant', { dueBy: inDays(1) })).body.code).toBe('not-allowed');
    const reason = 'Boats are paid by invoice.';
    const answer = await act('maeve', number, 'grant', { dueBy: inDays(20), amount: '400.00', reason });
    expect(answer.body.advance).toMatchObject({ state: 'to pay out', amount: '400.00', requested: '450.00', dueBy: inDays(20) });
    expect(answer.body.history.at(-1)).toMatchObject({ kind: 'granted', words: { reason }, facts: { amount: '400.00' } });
    expect((await by.odd!.get('/advances')).body.toPay.map((a: any) => a.number)).toContain(number);
    expect((await by.maeve!.get('/advances')).body.toPay).toEqual([]);
    expect((await act('tomas', number, 'withdraw')).body.advance.state).toBe('withdrawn');
    expect((await act('odd', number, 'pay-out', { date: DAY })).body.code).toBe('wrong-state');
  });

  it('is not for contractors, whatever the reason', async () => {
    const answer = await by.pavel!.post('/advances', { ...ASK, exception: 'Please' });
    expect([answer.status, answer.body.code]).toEqual([422, 'no-advance']);
    expect((await by.pavel!.get('/advances')).body.mayBegin).toBe(false);
    expect((await by.tomas!.get('/advances')).body.mayBegin).toBe(true);
  });

  it('keeps to the rules of the book unless a reason is given; who decides sees both', async () => {
    const first = await asked({ amount: '2000.00' });
    const { number } = (await by.tomas!.post('/advances', { ...ASK, amount: '500.01' })).body;
    const problem = 'With this, 2500.01 EUR would be open of at most 2500.00.';
    expect((await view(number)).problems).toEqual([{ severity: 'ask', rule: 'most-open', says: problem }]);
    expect((await act('tomas', number, 'request')).body.code).toBe('exception-wanted');
    const { revision } = (await view(number)).advance;
    await by.tomas!.put(`/advances/${number}`, { revision, set: { exception: 'Two boats.' } });
    expect((await act('tomas', number, 'request')).body.advance.state).toBe('requested');
    const waits = (await by.siobhan!.get('/approvals')).body.waiting.find((w: any) => w.number === number);
    expect(waits).toMatchObject({ usual: false, words: [{ says: problem, text: 'Two boats.' }] });
    await forget(first);
    await forget(number);
    const exact = (await by.tomas!.post('/advances', { ...ASK, amount: '2500.00' })).body.number;
    expect((await view(exact)).problems).toEqual([]);
  });

  it('looks at the rules again when it is granted', async () => {
    const open = await paidOut({ amount: '100.00' });
    const number = await asked({ amount: '100.00' });
    await act('siobhan', number, 'approve');
    await api.owner('advances').where({ id: open }).update({ due_by: inDays(-1) });
    const without = await act('maeve', number, 'grant', { dueBy: inDays(9) });
    expect(without.body).toMatchObject({ code: 'exception-wanted' });
    expect(without.body.says).toContain(`Advance ${open} was to be accounted for by ${inDays(-1)}.`);
    const withReason = await act('maeve', number, 'grant', { dueBy: inDays(9), reason: 'He is at sea.' });
    expect(withReason.body.advance.state).toBe('to pay out');
    await forget(number);
    await act('odd', open, 'give-back', { date: DAY, amount: '100.00' });
  });

  it('takes a plan of one’s own that is approved, and nobody else’s', async () => {
    const mine = await api.owner('plans').where({ claimant_id: 'P05', state: 'approved' }).first('number');
    const others = await api.owner('plans').whereNot({ claimant_id: 'P05' }).first('number');
    const ask = async (plan: string) => by.tomas!.post('/advances', { ...ASK, plan });
    expect((await ask(others.number)).body).toMatchObject({ code: 'invalid', numbers: { path: 'plan' } });
    if (mine) expect((await view((await ask(mine.number)).body.number)).advance.plan).toBe(mine.number);
  });

  it('refuses by name what makes no sense', async () => {
    const code = async (more: object) => {
      const { status, body } = await by.tomas!.post('/advances', { ...ASK, ...more });
      return [status, body.numbers?.path];
    };
    expect(await code({ amount: '0.00' })).toEqual([400, 'amount']);
    expect(await code({ amount: '-3.00' })).toEqual([400, 'amount']);
    expect(await code({ amount: '3.001' })).toEqual([400, 'amount']);
    expect(await code({ from: inDays(3), to: inDays(2) })).toEqual([400, 'to']);
    expect(await code({ purpose: ' ' })).toEqual([400, 'purpose']);
    expect(await code({ kind: 'holiday' })).toEqual([400, 'kind']);
    const { number } = (await by.tomas!.post('/advances', ASK)).body;
    const edit = await by.tomas!.put(`/advances/${number}`, { revision: 1, set: { currency: 'JPY' } });
    expect(edit.status).toBe(400);
    expect((await by.tomas!.put(`/advances/${number}`, { revision: 9, set: { purpose: 'x' } })).body.code).toBe('stale');
    expect((await by.hedda!.put(`/advances/${number}`, { revision: 1, set: { purpose: 'x' } })).status).toBe(404);
  });

  it('keeps files beside the request, and proofs from those who only approve', async () => {
    const { number } = (await by.tomas!.post('/advances', ASK)).body;
    const sent = await sendFile(by.tomas!, `/advances/${number}/attachments?revision=1`, await picture(41), 'quote.png');
    const [file] = sent.body.attachments;
    const page = async (who: string, id: string) => (await by[who]!.get(`/attachments/${id}/pages/1`)).status;
    expect([await page('tomas', file.id), await page('siobhan', file.id), await page('maeve', file.id)]).toEqual([200, 404, 404]);
    await act('tomas', number, 'request');
    expect([await page('siobhan', file.id), await page('maeve', file.id), await page('hedda', file.id)]).toEqual([200, 200, 404]);
    await act('siobhan', number, 'approve');
    await act('maeve', number, 'grant', { dueBy: inDays(9) });
    const paid = (await act('odd', number, 'pay-out', { date: DAY, reference: 'SEPA 7' })).body;
    expect(paid.advance.proofMissing).toBe(true);
    const path = `/advances/${number}/payments/${paid.payments[0].id}/proofs?revision=${paid.advance.revision}`;
    expect((await sendFile(by.maeve!, path, await picture(42), 'bank.png')).status).toBe(403);
    const proved = await sendFile(by.odd!, path, await picture(42), 'bank.png');
    expect(proved.body.advance.proofMissing).toBe(false);
    const [proof] = proved.body.payments[0].proofs;
    expect([await page('tomas', proof.id), await page('odd', proof.id), await page('siobhan', proof.id)]).toEqual([200, 200, 404]);
    expect((await view(number, 'siobhan')).payments).toEqual([]);
    await act('odd', number, 'give-back', { date: DAY, amount: '300.00' });
  });
});

describe('an advance that is paid out', () => {
  it('is posted, extended, and given back in parts to zero', async () => {
    const number = await granted();
    const pay = (more: object, who = 'odd') => act(who, number, 'pay-out', { date: DAY, ...more });
    expect((await pay({}, 'maeve')).body.code).toBe('not-allowed');
    expect((await pay({ date: inDays(1) })).body.code).toBe('future-date');
    expect((await pay({ bank: '299.99' })).body.code).toBe('bank-same');
    expect((await pay({ account: '1310' })).body.code).toBe('not-a-bank');
    expect((await pay({ account: '9999' })).body.code).toBe('not-a-bank');
    const paid = (await pay({ reference: 'SEPA 1' })).body;
    expect(paid.advance).toMatchObject({ state: 'paid out', paidOn: DAY, open: { amount: '300.00', ledger: '300.00' } });
    const rows = (await by.odd!.get(`/journals/${paid.payments[0].journal}`)).body.rows;
    expect(rows.map((r: any) => [r.account, r.debit, r.credit])).toEqual([
      ['1310', '300.00', '0.00'],
      ['1010', '0.00', '300.00'],
    ]);
    expect((await pay({})).body.code).toBe('wrong-state');
    expect((await act('maeve', number, 'extend', { dueBy: inDays(30) })).body.code).toBe('invalid');
    expect((await act('maeve', number, 'extend', { dueBy: inDays(30), reason: 'Storm.' })).body.advance.dueBy).toBe(inDays(30));
    const back = (amount: string, more: object = {}) => act('odd', number, 'give-back', { date: DAY, amount, ...more });
    expect((await back('300.01')).body).toMatchObject({ code: 'more-than-open', numbers: { open: '300.00' } });
    expect((await back('10.00', { date: inDays(-1) })).body.code).toMatch(/before-payout/);
    expect((await act('maeve', number, 'give-back', { date: DAY, amount: '1.00' })).body.code).toBe('not-allowed');
    const part = (await back('120.00')).body;
    expect(part.standing).toMatchObject({ givenBack: { amount: '120.00' }, open: { amount: '180.00', ledger: '180.00' } });
    const all = (await back('180.00')).body;
    expect(all.advance.state).toBe('settled');
    expect(all.payments.map((p: any) => [p.kind, p.amount, p.bank])).toEqual([
      ['payout', '300.00', '300.00'],
      ['return', '120.00', '120.00'],
      ['return', '180.00', '180.00'],
    ]);
    expect((await back('0.01')).body.code).toBe('wrong-state');
  });

  it('is listed as overdue for finance alone, from the day after', async () => {
    const number = await paidOut({ amount: '50.00' });
    const listed = async (who: string) => (await by[who]!.get('/advances')).body.overdue.map((a: any) => a.number);
    await api.owner('advances').where({ id: number }).update({ due_by: DAY });
    expect(await listed('maeve')).not.toContain(number);
    await api.owner('advances').where({ id: number }).update({ due_by: inDays(-1) });
    expect(await listed('maeve')).toContain(number);
    expect(await listed('ottoline')).toContain(number);
    expect(await listed('siobhan')).toEqual([]);
    expect((await by.tomas!.get('/advances')).body.own.find((a: any) => a.number === number).overdue).toBe(true);
    await act('odd', number, 'give-back', { date: DAY, amount: '50.00' });
  });
});

describe('the register', () => {
  it('agrees with the account of staff advances, by entity, person and age', async () => {
    const number = await paidOut({ amount: '60.00' });
    const { body } = await by.maeve!.get('/advances/register');
    const ireland = body.entities.find((e: any) => e.entity === 'IE');
    expect(ireland.open).toBe(ireland.balance);
    const { rows } = await api.owner.raw(
      `select sum(r.debit - r.credit)::bigint as balance from journal_rows r join journals j on j.id = r.journal_id where j.entity_id = 'IE' and r.account = '1310'`,
    );
    expect(ireland.balance.replace('.', '')).toBe(String(rows[0].balance));
    expect(body.rows.find((r: any) => r.number === number)).toMatchObject({ days: 0, age: '0–30', person: 'Tomás Brandão' });
    expect(body.rows.find((r: any) => r.number === 'A-031')).toMatchObject({ age: '31–60', overdue: true });
    const before = (await by.maeve!.get(`/advances/register?on=${inDays(-1)}`)).body;
    expect(before.rows.map((r: any) => r.number)).not.toContain(number);
    expect((await by.maeve!.get('/advances/register?entity=JP')).body.rows).toEqual([]);
    for (const who of ['tomas', 'siobhan']) expect((await by[who]!.get('/advances/register')).status).toBe(403);
    await api.owner('person_roles').where({ person_id: 'P01', role: 'reviewer' }).update({ entity_id: 'JP' });
    expect((await by.maeve!.get('/advances/register')).body.entities.map((e: any) => e.entity)).toEqual(['JP']);
    expect((await by.maeve!.get('/advances/register?entity=IE')).body.rows).toEqual([]);
    await api.owner('person_roles').where({ person_id: 'P01', role: 'reviewer' }).update({ entity_id: null });
    await act('odd', number, 'give-back', { date: DAY, amount: '60.00' });
  });
});

/*
 * The whole life of an advance in a currency of three decimals, by hand. 1 EUR in BHD: 0.41 twenty days ago, 0.42 ten days
 * ago, 0.40 today. 500.000 BHD are paid out for 1,201.37 EUR.
 *   First claim, BHD 200.125: 200.125 / 0.41 = 488.11 EUR; unit for unit it takes 200.125, at 1,201.37 × 200.125 / 500.000 =
 *   480.85 (480.8483…); exchange gain 7.26. Left 299.875 and 720.52.
 *   Second claim, BHD 99.875 and EUR 50.00: 99.875 / 0.42 = 237.80; the 50.00 by today's rate are 20.000 BHD. It takes
 *   119.875, at 720.52 × 119.875 / 299.875 = 288.03 (288.0278…), for 287.80; exchange loss 0.23. Left 180.000 and 432.49.
 *   100.000 given back for 245.00: booked 432.49 × 100 / 180 = 240.27 (240.2722…), gain 4.73. Left 80.000 and 192.22.
 *   80.000 given back by today's rate, 200.00: gain 7.78. Left 0.000 and 0.00.
 */
describe('an advance in a currency of three decimals, from the request to zero', () => {
  const CODING = { costCentre: '430', fund: '10' };
  const line = (days: number, amount: string, currency: string) => ({
    ...{ date: inDays(days), amount: { amount, currency }, category: 'supplies', merchant: `Souq ${amount}` },
    coding: CODING,
  });
  async function postedClaim(number: string): Promise<any> {
    await handIn(by.tomas!, number);
    const { revision } = (await viewOf(by.siobhan!, number)).claim;
    await by.siobhan!.post(`/claims/${number}/approve`, { revision });
    expect((await clear(by.maeve!, number)).body.code).toBeUndefined();
    const posted = await post(by.odd!, number, { date: DAY });
    expect(posted.body.code).toBeUndefined();
    return posted.body;
  }
  async function draft(lines: object[]): Promise<string> {
    const { number } = (await by.tomas!.post('/drafts', { purpose: 'Manama', coding: CODING })).body;
    await by.tomas!.post(`/drafts/${number}/lines`, { revision: 1, lines });
    return number;
  }
  const exchangeOf = async (journal: string) =>
    (await by.odd!.get(`/journals/${journal}`)).body.rows
      .filter((r: any) => r.account === '7990')
      .map((r: any) => [r.debit, r.credit]);

  it('comes to exactly zero in both currencies, and opens again with a reversal', async () => {
    for (const [days, rate] of [[-20, '0.41'], [-10, '0.42'], [0, '0.40']] as const)
      await api
        .owner('rates')
        .insert({ from_currency: 'EUR', to_currency: 'BHD', date: inDays(days), rate, source: 'By hand' })
        .onConflict(['from_currency', 'to_currency', 'date'])
        .merge();
    const number = await granted({ amount: '600.000', currency: 'BHD' }, { amount: '500.000', reason: 'Less is enough.' });
    await act('odd', number, 'pay-out', { date: DAY, bank: '1201.37' });
    // both claims are begun before either is posted: each is set against the advance without being told
    const first = await draft([line(-20, '200.125', 'BHD')]);
    const second = await draft([line(-10, '99.875', 'BHD'), line(-3, '50.00', 'EUR')]);
    const { settlement, advances } = await viewOf(by.tomas!, second);
    expect(settlement).toMatchObject({ claimed: '287.80', advances: '287.80', toPay: '0.00' });
    expect(advances).toMatchObject([{ number, open: '500.000', paidOut: '500.000', accountedFor: '0.000', here: { upTo: null } }]);

    const one = await postedClaim(first);
    expect(await exchangeOf(one.journal)).toEqual([['0.00', '7.26']]);
    expect((await view(number)).standing).toEqual({
      paidOut: { amount: '500.000', ledger: '1201.37' },
      accountedFor: { amount: '200.125', ledger: '480.85' },
      givenBack: { amount: '0.000', ledger: '0.00' },
      open: { amount: '299.875', ledger: '720.52' },
    });
    const two = await postedClaim(second);
    expect(await exchangeOf(two.journal)).toEqual([['0.23', '0.00']]);
    expect((await view(number)).standing.open).toEqual({ amount: '180.000', ledger: '432.49' });

    const part = await act('odd', number, 'give-back', { date: DAY, amount: '100.000', bank: '245.00' });
    expect(part.body.standing.open).toEqual({ amount: '80.000', ledger: '192.22' });
    expect(await exchangeOf(part.body.payments[1].journal)).toEqual([['0.00', '4.73']]);
    const last = await act('odd', number, 'give-back', { date: DAY, amount: '80.000' });
    expect(await exchangeOf(last.body.payments[2].journal)).toEqual([['0.00', '7.78']]);
    expect(last.body.advance).toMatchObject({ state: 'settled', open: { amount: '0.000', ledger: '0.00' } });
    expect(last.body.uses.map((u: any) => [u.claim, u.applied, u.ledger, u.posted])).toEqual([
      [first, '200.125', '480.85', true],
      [second, '119.875', '288.03', true],
    ]);
    const register = (await by.odd!.get('/advances/register?entity=IE')).body;
    expect(register.rows.map((r: any) => r.number)).not.toContain(number);
    expect(register.entities[0].open).toBe(register.entities[0].balance);

    const reversed = await by.odd!.post(`/journals/${two.journal}/reversal`, {
      ...{ date: DAY, reason: 'Wrong day', key: `key-${Math.random()}` },
    });
    expect(reversed.body.code).toBeUndefined();
    const again = await view(number);
    expect(again.advance.state).toBe('paid out');
    expect(again.standing).toEqual({
      paidOut: { amount: '500.000', ledger: '1201.37' },
      accountedFor: { amount: '200.125', ledger: '480.85' },
      givenBack: { amount: '180.000', ledger: '432.49' },
      open: { amount: '119.875', ledger: '288.03' },
    });
    expect(again.uses.map((u: any) => u.claim)).toEqual([first]);
  });

  it('is taken off a claim, limited, and set in order; not one of somebody else', async () => {
    const number = await paidOut({ amount: '90.00' });
    const claim = await draft([line(-2, '70.00', 'EUR')]);
    const set = async (advances: object[]) => {
      const { revision } = (await viewOf(by.tomas!, claim)).claim;
      return by.tomas!.put(`/drafts/${claim}`, { revision, set: { advances } });
    };
    const upTo = async (wanted: object[]) => (await set(wanted)).body.settlement?.toPay;
    expect(await upTo([])).toBe('70.00');
    expect(await upTo([{ advance: number, upTo: '25.50' }])).toBe('44.50');
    expect(await upTo([{ advance: number, upTo: null }])).toBe('0.00');
    expect((await set([{ advance: 'A-031', upTo: null }])).body).toMatchObject({
      code: 'invalid',
      numbers: { path: 'set.advances.0.advance' },
    });
    expect((await set([{ advance: number, upTo: null }, { advance: number, upTo: null }])).status).toBe(400);
    expect((await set([{ advance: number, upTo: '-1.00' }])).status).toBe(400);
    expect((await set([{ advance: number, upTo: '1.001' }])).status).toBe(400);
    const seen = (await viewOf(by.tomas!, claim)).advances.find((a: any) => a.number === number);
    expect(seen.here).toEqual({ position: 0, upTo: null });
  });
});
