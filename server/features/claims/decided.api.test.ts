import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { handIn, post } from '../../../test/fixtures/acts.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';

/** What was declined, cut and approved, and what becomes of it: nothing more than was approved goes on by itself. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
beforeAll(async () => {
  api = await startApi('decided');
  of = await claimsOfTomas(api);
  await api.owner('budgets').update({ amount: 90_000_000 });
});
afterAll(() => api.close());

const dueOf = async (number: string) => (await of.view(number)).assessment.settlement.due;

describe('a decline', () => {
  const reason = 'Paid by the harbour already.';
  it('leaves the cut that was under it, and takes it off by what it was', async () => {
    const number = await of.inReview([of.line('40.00')]);
    of.fine(await of.correct(number, '1', { cut: { amount: '5.00', reason: 'Without the bag' } }));
    expect(await dueOf(number)).toBe('35.00');
    // what was not declined does not count again, and keeps its cut
    expect((await of.act('maeve', number, 'restore-line', { line: '1' })).body.code).toBe('line-counts');
    expect(await dueOf(number)).toBe('35.00');
    const declined = of.fine(await of.act('maeve', number, 'decline-line', { line: '1', reason }));
    expect(declined.assessment.settlement.due).toBe('0.00');
    expect(declined.declined).toEqual([{ line: '1', reason, by: 'Maeve Tarrant' }]);
    expect((await of.act('maeve', number, 'decline-line', { line: '1', reason })).body.code).toBe('line-declined');
    const cutAnew = await of.correct(number, '1', { cut: null });
    expect(cutAnew.body.code).toBe('line-declined');
    const restored = of.fine(await of.act('maeve', number, 'restore-line', { line: '1' }));
    expect(restored.assessment.settlement.due).toBe('35.00');
    expect(restored.declined).toEqual([]);
    expect(restored.document.claim.lines[0].cut).toEqual({ amount: '5.00', reason: 'Without the bag' });
  });
  it('of a line with items leaves the cut of each', async () => {
    const items = [
      { id: 'a', category: 'supplies', amount: '10.00' },
      { id: 'b', category: 'supplies', amount: '20.00' },
    ];
    const number = await of.inReview([of.line('30.00', { category: 'supplies', items })]);
    const seen = await of.view(number);
    const [, second] = seen.document.claim.lines[0].items;
    of.fine(await of.correct(number, '1', { cut: { amount: '3.00', reason: 'Wine' } }, second.id));
    of.fine(await of.act('maeve', number, 'decline-line', { line: '1', reason }));
    expect(await dueOf(number)).toBe('0.00');
    of.fine(await of.act('maeve', number, 'restore-line', { line: '1' }));
    expect((await of.view(number)).document.claim.lines[0].items.map((i: any) => i.cut?.amount ?? null)).toEqual([
      null,
      '3.00',
    ]);
    expect(await dueOf(number)).toBe('27.00');
  });
  it('by the approver is known as one to whom it concerns', async () => {
    const number = await of.submitted([of.line('11.00'), of.line('9.00')]);
    of.fine(await of.act('siobhan', number, 'decline-line', { line: '1', reason }));
    expect((await of.view(number, 'tomas')).declined).toEqual([{ line: '1', reason, by: 'Siobhán O’Dowd' }]);
  });
});

describe('more than was approved', () => {
  it('is not cleared before who approves has seen it: an own rate, and who paid', async () => {
    const usd = { amount: { amount: '20.00', currency: 'USD' }, country: 'US' };
    const number = await of.inReview([of.line('', { ...usd, paidBy: 'central' }), of.line('18.48')]);
    expect(await dueOf(number)).toBe('18.48');
    of.fine(await of.correct(number, '1', { paidBy: 'own', rate: { kind: 'own', value: '9.5' } }));
    // who owns the code it is charged to is asked by itself; who approves, by sending it back
    expect((await of.clear(number)).body.code).toBe('owners-asked');
    of.fine(await of.act('ren', number, 'agree-code'));
    expect((await of.view(number)).raised).toContain('due 208.48 EUR, approved 18.48');
    const refused = await of.clear(number);
    expect(refused.body).toMatchObject({ code: 'more-than-approved' });
    expect(refused.body.says).toContain('208.48');
    of.fine(await of.act('maeve', number, 'return-to-approver', { reason: 'The claimant paid it.' }));
    of.fine(await of.act('siobhan', number, 'approve'));
    expect((await of.view(number)).raised).toBeNull();
    expect((await of.clear(number)).status).toBe(200);
    // and posted as it was approved, not beyond it, should it be more by then
    const approved = api
      .owner('approved_figures')
      .whereIn('claim_id', api.owner('claims').where({ number }).select('id'));
    const { due } = await approved.clone().first('due');
    await approved.clone().update({ due: due - 1n });
    expect((await of.post(number)).body.code).toBe('more-than-approved');
    await approved.clone().update({ due });
    expect((await of.post(number)).status).toBe(201);
  });
  it('is a line that the approver declined and finance counts again', async () => {
    const number = await of.submitted([of.line('50.00'), of.line('9.00')]);
    of.fine(await of.act('siobhan', number, 'decline-line', { line: '1', reason: 'No.' }));
    of.fine(await of.act('siobhan', number, 'approve'));
    of.fine(await of.act('maeve', number, 'restore-line', { line: '1' }));
    of.fine(await of.act('ren', number, 'agree-code'));
    expect((await of.clear(number)).body.code).toBe('more-than-approved');
    of.fine(await of.act('maeve', number, 'decline-line', { line: '1', reason: 'No.' }));
    expect((await of.clear(number)).status).toBe(200);
  });
  it('is tolerated as far as a setting says, of what was approved', async () => {
    await api.owner('settings').insert({ key: 'raised-tolerance-percent', value: '2' });
    const paidMore = async (more: string) => {
      const number = await of.inReview([of.line('100.00'), of.line(more, { paidBy: 'central' })]);
      of.fine(await of.correct(number, '2', { paidBy: 'own' }));
      return (await of.clear(number)).body;
    };
    expect((await paidMore('2.00')).claim.state).toBe('cleared');
    expect((await paidMore('2.01')).code).toBe('more-than-approved');
    await api.owner('settings').where({ key: 'raised-tolerance-percent' }).delete();
  });
  it('charged to a code asks its owner anew, also where it was charged before', async () => {
    const project = { costCentre: '430', fund: '10', project: 'FLAT-07', spendType: 'materials' };
    const number = await of.inReview([of.line('61.00', { coding: project }), of.line('9.00')]);
    of.fine(await of.correct(number, '2', { coding: project }));
    expect((await of.view(number)).claim.ownersAsked).toEqual(['Ren Isshiki']);
    expect((await of.clear(number)).body.code).toBe('owners-asked');
    of.fine(await of.act('ren', number, 'agree-code'));
    expect((await of.view(number)).claim.ownersAsked).toEqual([]);
    // the same again is what was agreed to
    of.fine(await of.correct(number, '1', { cut: { amount: '1.00', reason: 'Bag' } }));
    expect((await of.view(number)).claim.ownersAsked).toEqual([]);
    expect((await of.clear(number)).status).toBe(200);
  });
  it('is nothing where finance lowers it', async () => {
    const number = await of.inReview([of.line('30.00')]);
    of.fine(await of.correct(number, '1', { cut: { amount: '1.00', reason: 'Bag' } }));
    expect((await of.clear(number)).status).toBe(200);
  });
});

describe('why finance holds a claim', () => {
  it('ends with the clearing', async () => {
    const number = await of.inReview([of.line('24.00')]);
    of.fine(await of.act('maeve', number, 'hold', { reason: 'Bank', told: 'A slip', until: '2030-01-01' }));
    expect((await of.clear(number)).status).toBe(200);
    const kept = await api.owner('claims').where({ number }).first('hold_reason', 'hold_told', 'hold_until');
    expect(kept).toEqual({ hold_reason: null, hold_told: null, hold_until: null });
  });
  it('is for finance; its makers and approvers read what they are told, or that it is held', async () => {
    const number = await of.inReview([of.line('21.00')]);
    const hold = { reason: 'Looks forged, asking the bank', until: '2030-01-01' };
    of.fine(await of.act('maeve', number, 'hold', hold));
    const texts = async (who: 'tomas' | 'siobhan') => JSON.stringify(await of.view(number, who));
    for (const who of ['tomas', 'siobhan'] as const) {
      expect(await texts(who)).not.toContain('forged');
      expect((await of.view(number, who)).claim).toMatchObject({ holdReason: null, holdUntil: '2030-01-01' });
    }
    of.fine(await of.act('maeve', number, 'release'));
    of.fine(await of.act('maeve', number, 'hold', { ...hold, told: 'We wait for the bank.' }));
    for (const who of ['tomas', 'siobhan'] as const) {
      expect(await texts(who)).not.toContain('forged');
      const { claim, history } = await of.view(number, who);
      expect(claim.holdReason).toBe('We wait for the bank.');
      expect(history.at(-1)).toMatchObject({ kind: 'held', words: { reason: 'We wait for the bank.' } });
    }
    const { claim } = await of.view(number);
    expect([claim.holdReason, claim.holdTold]).toEqual([hold.reason, 'We wait for the bank.']);
  });
});

describe('a claim nobody wants any more', () => {
  it('is taken away as a draft, with what is on it free again, and brought back while that is so', async () => {
    const number = await of.draft([of.line('12.00')]);
    of.fine(await of.act('tomas', number, 'withdraw'));
    expect((await of.by.tomas.get('/claims/own')).body.claims.map((c: any) => c.number)).not.toContain(number);
    expect((await of.act('siobhan', number, 'bring-back')).body.code).toBe('not-found');
    of.fine(await of.act('tomas', number, 'bring-back'));
    expect((await of.view(number, 'tomas')).claim.state).toBe('draft');
    of.fine(await handIn(of.by.tomas, number));
  });
  it('is withdrawn once it came back, and taken up again', async () => {
    const number = await of.submitted([of.line('13.00')]);
    of.fine(await of.act('siobhan', number, 'return', { reason: 'Why?' }));
    of.fine(await of.act('tomas', number, 'withdraw'));
    expect((await of.view(number, 'tomas')).claim.state).toBe('withdrawn');
    of.fine(await of.act('tomas', number, 'bring-back'));
    expect((await of.view(number, 'tomas')).claim).toMatchObject({ state: 'draft', version: 2 });
  });
});

describe('a key', () => {
  it('is of its act alone: the same one posts and reverses', async () => {
    const number = await of.inReview([of.line('25.00')]);
    expect((await of.clear(number)).status).toBe(200);
    const odd = of.by.odd.once('one-key-for-two-acts');
    const posted = await post(odd, number);
    expect(posted.status).toBe(201);
    const reversal = { date: daysAgo(0), reason: 'Wrong' };
    const reversed = await odd.post(`/journals/${posted.body.journal}/reversal`, reversal);
    expect(reversed.status).toBe(201);
    expect(reversed.body.journal).not.toBe(posted.body.journal);
  });
});
