import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { advanceActs, ASK, DAY, inDays } from '../../../test/fixtures/advances.ts';
import { picture, sendFile } from '../../../test/fixtures/sendFile.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { rebuildBook } from '../../records/book/sharedBook.ts';

let api: TestApi;
let { by, view, act, asked, granted, paidOut } = {} as Awaited<ReturnType<typeof advanceActs>>;
beforeAll(async () => {
  api = await startApi('advances');
  ({ by, view, act, asked, granted, paidOut } = await advanceActs(api));
});
afterAll(() => api.close());

/** Takes what a test left out of the way of the next: an advance somebody has open counts against their next one. */
const forget = (number: string) => api.owner('advances').where({ id: number }).update({ state: 'withdrawn' });

describe('asking for an advance', () => {
  it('goes from a draft over its route and a reviewer to the payout, each seen by whom it concerns', async () => {
    const { number } = (await by.tomas.post('/advances', { ...ASK, from: inDays(3), to: inDays(9) })).body;
    for (const who of ['siobhan', 'maeve', 'odd', 'wanjiru'] as const) {
      expect((await view(number, who)).code).toBe('not-found');
      expect((await by[who].get(`/approval-routes/advance/${number}`)).status).toBe(404);
    }
    const draft = await view(number);
    expect(draft.advance).toMatchObject({ state: 'draft', proposedDue: inDays(23), requestedOn: null, open: null });
    const edited = await by.tomas.put(`/advances/${number}`, {
      revision: draft.advance.revision,
      set: { amount: '450.00', currency: 'EUR', purpose: 'Boats' },
    });
    expect(edited.body.advance).toMatchObject({ amount: '450.00', requested: '450.00', purpose: 'Boats' });
    expect((await by.tomas.get(`/approval-routes/advance/${number}`)).body).toMatchObject({ submitted: false });
    await act('tomas', number, 'request');
    const waits = (await by.siobhan.get('/approvals')).body.waiting.find((w: any) => w.number === number);
    expect(waits).toMatchObject({ kind: 'advance', amount: '450.00', usual: true, who: 'Tomás Brandão' });
    expect((await act('maeve', number, 'grant', { dueBy: inDays(20) })).body.code).toBe('wrong-state');
    await act('siobhan', number, 'approve', { comment: 'Fine.' });
    expect((await by.maeve.get('/advances')).body.toGrant.map((a: any) => a.number)).toContain(number);
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
    expect(answer.body.advance).toMatchObject({
      state: 'to pay out',
      amount: '400.00',
      requested: '450.00',
      dueBy: inDays(20),
    });
    expect(answer.body.history.at(-1)).toMatchObject({
      kind: 'granted',
      words: { reason },
      facts: { amount: '400.00' },
    });
    expect((await by.odd.get('/advances')).body.toPay.map((a: any) => a.number)).toContain(number);
    expect((await by.maeve.get('/advances')).body.toPay).toEqual([]);
    expect((await act('tomas', number, 'withdraw')).body.advance.state).toBe('withdrawn');
    expect((await act('odd', number, 'pay-out', { date: DAY })).body.code).toBe('wrong-state');
  });

  it('is not for contractors, whatever the reason', async () => {
    const answer = await by.pavel.post('/advances', { ...ASK, exception: 'Please' });
    expect([answer.status, answer.body.code]).toEqual([422, 'no-advance']);
    expect((await by.pavel.get('/advances')).body.mayBegin).toBe(false);
    expect((await by.tomas.get('/advances')).body.mayBegin).toBe(true);
  });

  it('keeps to the rules of the book unless a reason is given; who decides sees both', async () => {
    const first = await asked({ amount: '2000.00' });
    const { number } = (await by.tomas.post('/advances', { ...ASK, amount: '500.01' })).body;
    const problem = 'With this, 2500.01 EUR would be open of at most 2500.00.';
    expect((await view(number)).problems).toEqual([{ severity: 'ask', rule: 'most-open', says: problem }]);
    expect((await act('tomas', number, 'request')).body.code).toBe('exception-wanted');
    const { revision } = (await view(number)).advance;
    await by.tomas.put(`/advances/${number}`, { revision, set: { exception: 'Two boats.' } });
    expect((await act('tomas', number, 'request')).body.advance.state).toBe('requested');
    const waits = (await by.siobhan.get('/approvals')).body.waiting.find((w: any) => w.number === number);
    expect(waits).toMatchObject({ usual: false, words: [{ says: problem, text: 'Two boats.' }] });
    await forget(first);
    await forget(number);
    const exact = (await by.tomas.post('/advances', { ...ASK, amount: '2500.00' })).body.number;
    expect((await view(exact)).problems).toEqual([]);
  });

  it('looks at the rules again when it is granted', async () => {
    const open = await paidOut({ amount: '100.00' });
    const number = await asked({ amount: '100.00' });
    await act('siobhan', number, 'approve');
    await api
      .owner('advances')
      .where({ id: open })
      .update({ due_by: inDays(-1) });
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
    const others = await api
      .owner('plans')
      .whereNot({ claimant_id: 'P05' })
      .where({ entity_id: 'IE', state: 'with approver' })
      .first('number');
    const ask = async (plan: string) => by.tomas.post('/advances', { ...ASK, plan });
    expect((await ask(others.number)).body).toMatchObject({ code: 'not-found', numbers: { what: 'plan' } });
    if (mine) expect((await view((await ask(mine.number)).body.number)).advance.plan).toBe(mine.number);
  });

  it('refuses by name what makes no sense', async () => {
    const code = async (more: object) => {
      const { status, body } = await by.tomas.post('/advances', { ...ASK, ...more });
      return [status, body.numbers?.path];
    };
    expect(await code({ amount: '0.00' })).toEqual([400, 'amount']);
    expect(await code({ amount: '-3.00' })).toEqual([400, 'amount']);
    expect(await code({ amount: '3.001' })).toEqual([400, 'amount']);
    expect(await code({ from: inDays(3), to: inDays(2) })).toEqual([400, 'to']);
    expect(await code({ purpose: ' ' })).toEqual([400, 'purpose']);
    expect(await code({ kind: 'holiday' })).toEqual([400, 'kind']);
    const { number } = (await by.tomas.post('/advances', ASK)).body;
    const edit = await by.tomas.put(`/advances/${number}`, { revision: 1, set: { currency: 'JPY' } });
    expect(edit.status).toBe(400);
    expect((await by.tomas.put(`/advances/${number}`, { revision: 9, set: { purpose: 'x' } })).body.code).toBe('stale');
    expect((await by.hedda.put(`/advances/${number}`, { revision: 1, set: { purpose: 'x' } })).status).toBe(404);
  });

  it('refuses a last day before the first it has already, and to take off what another request carries', async () => {
    const { number } = (await by.tomas.post('/advances', { ...ASK, from: inDays(3), to: inDays(9) })).body;
    const early = await by.tomas.put(`/advances/${number}`, { revision: 1, set: { to: inDays(2) } });
    expect([early.status, early.body.numbers.path]).toEqual([400, 'set.to']);
    const other = (await by.tomas.post('/advances', ASK)).body.number;
    const sent = await sendFile(by.tomas, `/advances/${other}/attachments?revision=1`, await picture(40), 'quote.png');
    const [file] = sent.body.attachments;
    const off = (of: string, revision: number) =>
      by.tomas.send('DELETE', `/advances/${of}/attachments/${file.id}?revision=${revision}`);
    expect((await off(number, 1)).status).toBe(404);
    expect((await view(other)).attachments).toHaveLength(1);
    expect((await off(other, 2)).body.attachments).toEqual([]);
  });

  it('keeps files beside the request, and proofs from those who only approve', async () => {
    const { number } = (await by.tomas.post('/advances', ASK)).body;
    const sent = await sendFile(by.tomas, `/advances/${number}/attachments?revision=1`, await picture(41), 'quote.png');
    const [file] = sent.body.attachments;
    const page = async (who: keyof typeof by, id: string) => (await by[who].get(`/attachments/${id}/pages/1`)).status;
    expect([await page('tomas', file.id), await page('siobhan', file.id), await page('maeve', file.id)]).toEqual([
      200, 404, 404,
    ]);
    await act('tomas', number, 'request');
    expect([await page('siobhan', file.id), await page('maeve', file.id), await page('hedda', file.id)]).toEqual([
      200, 200, 404,
    ]);
    await act('siobhan', number, 'approve');
    await act('maeve', number, 'grant', { dueBy: inDays(9) });
    const paid = (await act('odd', number, 'pay-out', { date: DAY, reference: 'SEPA 7' })).body;
    expect(paid.advance.proofMissing).toBe(true);
    const path = `/advances/${number}/payments/${paid.payments[0].id}/proofs?revision=${paid.advance.revision}`;
    expect((await sendFile(by.maeve, path, await picture(42), 'bank.png')).status).toBe(403);
    const proved = await sendFile(by.odd, path, await picture(42), 'bank.png');
    expect(proved.body.advance.proofMissing).toBe(false);
    const [proof] = proved.body.payments[0].proofs;
    expect([await page('tomas', proof.id), await page('odd', proof.id), await page('siobhan', proof.id)]).toEqual([
      200, 200, 404,
    ]);
    expect((await view(number, 'siobhan')).payments).toEqual([]);
    await act('odd', number, 'give-back', { date: DAY, amount: '300.00' });
  });
});

describe('an advance that is paid out', () => {
  it('is posted, extended, and given back in parts to zero', async () => {
    const number = await granted();
    const pay = (more: object, who: keyof typeof by = 'odd') => act(who, number, 'pay-out', { date: DAY, ...more });
    expect((await pay({}, 'maeve')).body.code).toBe('not-allowed');
    expect((await pay({ date: inDays(1) })).body.code).toBe('future-date');
    expect((await pay({ bank: '299.99' })).body.code).toBe('bank-same');
    expect((await pay({ account: '1310' })).body.code).toBe('not-a-bank');
    expect((await pay({ account: '9999' })).body.code).toBe('not-a-bank');
    const paid = (await pay({ reference: 'SEPA 1' })).body;
    expect(paid.advance).toMatchObject({
      state: 'paid out',
      paidOn: DAY,
      open: { amount: '300.00', ledger: '300.00' },
    });
    const rows = (await by.odd.get(`/journals/${paid.payments[0].journal}`)).body.rows;
    expect(rows.map((r: any) => [r.account, r.debit, r.credit])).toEqual([
      ['1310', '300.00', '0.00'],
      ['1010', '0.00', '300.00'],
    ]);
    expect((await pay({})).body.code).toBe('wrong-state');
    expect((await act('maeve', number, 'extend', { dueBy: inDays(30) })).body.code).toBe('invalid');
    expect((await act('maeve', number, 'extend', { dueBy: inDays(30), reason: 'Storm.' })).body.advance.dueBy).toBe(
      inDays(30),
    );
    const back = (amount: string, more: object = {}) => act('odd', number, 'give-back', { date: DAY, amount, ...more });
    expect((await back('300.01')).body).toMatchObject({ code: 'more-than-open', numbers: { open: '300.00' } });
    expect((await back('10.00', { date: inDays(-1) })).body.code).toMatch(/before-payout/);
    expect((await act('maeve', number, 'give-back', { date: DAY, amount: '1.00' })).body.code).toBe('not-allowed');
    const part = (await back('120.00')).body;
    expect(part.standing).toMatchObject({
      givenBack: { amount: '120.00' },
      open: { amount: '180.00', ledger: '180.00' },
    });
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
    const listed = async (who: keyof typeof by) =>
      (await by[who].get('/advances')).body.overdue.map((a: any) => a.number);
    await api.owner('advances').where({ id: number }).update({ due_by: DAY });
    expect(await listed('maeve')).not.toContain(number);
    await api
      .owner('advances')
      .where({ id: number })
      .update({ due_by: inDays(-1) });
    expect(await listed('maeve')).toContain(number);
    const auditor = await api.owner('people').where({ id: 'P12' }).first('email');
    const looks = await api.as(auditor.email.split('@')[0]);
    expect((await looks.get('/advances')).body.overdue.map((a: any) => a.number)).toContain(number);
    expect(await listed('siobhan')).toEqual([]);
    expect((await by.tomas.get('/advances')).body.own.find((a: any) => a.number === number).overdue).toBe(true);
    await act('odd', number, 'give-back', { date: DAY, amount: '50.00' });
  });
});

describe('the register', () => {
  it('agrees with the account of staff advances, by entity, person and age', async () => {
    const number = await paidOut({ amount: '60.00' });
    const { body } = await by.maeve.get('/advances/register');
    const ireland = body.entities.find((e: any) => e.entity === 'IE');
    expect(ireland.open).toBe(ireland.balance);
    const { rows } = await api.owner.raw(
      `select sum(r.debit - r.credit)::bigint as balance from journal_rows r join journals j on j.id = r.journal_id where j.entity_id = 'IE' and r.account = '1310'`,
    );
    expect(ireland.balance.replace('.', '')).toBe(String(rows[0].balance));
    expect(body.rows.find((r: any) => r.number === number)).toMatchObject({
      days: 0,
      age: '0–30',
      person: 'Tomás Brandão',
    });
    expect(body.rows.find((r: any) => r.number === 'A-031')).toMatchObject({ age: '31–60', overdue: true });
    const before = (await by.maeve.get(`/advances/register?on=${inDays(-1)}`)).body;
    expect(before.rows.map((r: any) => r.number)).not.toContain(number);
    expect((await by.maeve.get('/advances/register?entity=JP')).body.rows).toEqual([]);
    for (const who of ['tomas', 'siobhan'] as const) expect((await by[who].get('/advances/register')).status).toBe(403);
    await api.owner('person_roles').where({ person_id: 'P01', role: 'reviewer' }).update({ entity_id: 'JP' });
    expect((await by.maeve.get('/advances/register')).body.entities.map((e: any) => e.entity)).toEqual(['JP']);
    expect((await by.maeve.get('/advances/register?entity=IE')).body.rows).toEqual([]);
    await api.owner('person_roles').where({ person_id: 'P01', role: 'reviewer' }).update({ entity_id: null });
    await act('odd', number, 'give-back', { date: DAY, amount: '60.00' });
  });
});

describe('what a payout needs', () => {
  it('is said: a rate of the day, an account of the bank, a payment that its proof is of', async () => {
    const number = await granted({ amount: '30.000', currency: 'BHD' });
    const pay = (more: object = {}) => act('odd', number, 'pay-out', { date: DAY, ...more });
    const terms = api.owner('entity_terms').where({ entity_id: 'IE' });
    const { accounts } = await terms.clone().first('accounts');
    const { bank, ...others } = accounts;
    const keep = async (of: object) => {
      await terms.clone().update({ accounts: JSON.stringify(of) });
      await rebuildBook(api.owner, 'IE');
    };
    await keep(others);
    expect((await pay()).body).toMatchObject({ code: 'no-account' });
    await keep(accounts);
    await api.owner('rates').where({ to_currency: 'BHD' }).delete();
    expect((await pay()).body).toMatchObject({ code: 'no-rate', numbers: { from: 'BHD', to: 'EUR' } });
    const paid = (await pay({ bank: '73.17' })).body;
    expect(paid.payments).toMatchObject([{ account: bank }]);
    const path = `/advances/${number}/payments/999999/proofs?revision=${paid.advance.revision}`;
    expect((await sendFile(by.odd, path, await picture(43), 'bank.png')).status).toBe(404);
    await act('odd', number, 'give-back', { date: DAY, amount: '30.000', bank: '73.17' });
  });
});
