import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { handIn } from '../../../test/fixtures/acts.ts';
import { claimsOfTomas } from '../../../test/fixtures/claimsOfTomas.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';

/** What goes with a claim that comes back to its makers: what was declined of it, its receipts, its way there and back. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
beforeAll(async () => {
  api = await startApi('claims_carried');
  of = await claimsOfTomas(api);
});
afterAll(() => api.close());

const toPay = async (number: string, who: 'tomas' | 'siobhan') => (await of.view(number, who)).settlement.toPay;
const declinedTo = async (number: string, who: 'tomas' | 'siobhan') =>
  (await of.view(number, who)).declined.map((d: any) => [d.line, d.reason]);
async function declinedAndReturned(reason = 'Not for the society') {
  const number = await of.submitted([of.line('204.00'), of.line('12.00')]);
  of.fine(await of.act('siobhan', number, 'decline-line', { line: '2', reason }));
  of.fine(await of.act('siobhan', number, 'return', { reason: 'Say more about line 1' }));
  return number;
}
const handInAgain = async (number: string) => {
  const { state } = await api.owner('claims').where({ number }).first('state');
  return handIn(of.by.tomas, number, state === 'returned' ? 'resubmit' : 'submit');
};
const edit = async (number: string, line: string, set: object) =>
  of.fine(await of.by.tomas.put(`/drafts/${number}/lines/${line}`, { revision: await of.revisionOf(number), set }));

describe('a line that was declined', () => {
  it('stays so when the claim comes back, with its reason, for both', async () => {
    const number = await declinedAndReturned();
    const declined = [['2', 'Not for the society']];
    expect([await toPay(number, 'tomas'), await toPay(number, 'siobhan')]).toEqual(['204.00', '204.00']);
    expect([await declinedTo(number, 'tomas'), await declinedTo(number, 'siobhan')]).toEqual([declined, declined]);
    await edit(number, '1', { description: 'Nets for the north shore' });
    of.fine(await handInAgain(number));
    expect([await toPay(number, 'tomas'), await toPay(number, 'siobhan')]).toEqual(['204.00', '204.00']);
    expect(await declinedTo(number, 'siobhan')).toEqual(declined);
    of.fine(await of.act('siobhan', number, 'restore-line', { line: '2' }));
    expect([await toPay(number, 'tomas'), await declinedTo(number, 'tomas')]).toEqual(['216.00', []]);
  });
  it('is asked again once it changes, and declined as before when it is put back', async () => {
    const number = await declinedAndReturned();
    await edit(number, '2', { description: 'It was for the society after all' });
    expect([await toPay(number, 'tomas'), await declinedTo(number, 'tomas')]).toEqual(['216.00', []]);
    await edit(number, '2', { description: null });
    expect(await toPay(number, 'tomas')).toBe('204.00');
    await edit(number, '2', { description: 'For the society' });
    of.fine(await handInAgain(number));
    expect([await toPay(number, 'siobhan'), await declinedTo(number, 'siobhan')]).toEqual(['216.00', []]);
    of.fine(await of.act('siobhan', number, 'decline-line', { line: '2', reason: 'Still not' }));
    expect(await declinedTo(number, 'siobhan')).toEqual([['2', 'Still not']]);
  });
  it('stays so over several ways back, and when its makers take the claim back themselves', async () => {
    const number = await declinedAndReturned();
    of.fine(await handInAgain(number));
    of.fine(await of.act('tomas', number, 'call-back'));
    expect([await toPay(number, 'tomas'), await declinedTo(number, 'tomas')]).toEqual([
      '204.00',
      [['2', 'Not for the society']],
    ]);
    of.fine(await handInAgain(number));
    expect(await toPay(number, 'siobhan')).toBe('204.00');
  });
  it('with items has all of them declined, and one that is taken off is gone', async () => {
    const items = [
      { id: 'a', category: 'supplies', amount: '7.00' },
      { id: 'b', category: 'supplies', amount: '5.00' },
    ];
    const number = await of.submitted([of.line('204.00'), of.line('12.00')]);
    of.fine(await of.act('siobhan', number, 'return', { reason: 'Items, please' }));
    await edit(number, '2', { items });
    of.fine(await handInAgain(number));
    of.fine(await of.act('siobhan', number, 'decline-line', { line: '2', reason: 'No' }));
    of.fine(await of.act('siobhan', number, 'return', { reason: 'Why?' }));
    expect(await toPay(number, 'tomas')).toBe('204.00');
    const revision = await of.revisionOf(number);
    of.fine(await of.by.tomas.send('DELETE', `/drafts/${number}/lines/2?revision=${revision}`));
    expect([await toPay(number, 'tomas'), await declinedTo(number, 'tomas')]).toEqual(['204.00', []]);
    of.fine(await handInAgain(number));
  });
});

describe('a claim that its makers take back', () => {
  it('is a draft again with everything on it, and nobody is asked; what went out stays as it was', async () => {
    const number = await of.submitted([of.line('31.00')]);
    of.fine(await of.act('tomas', number, 'call-back'));
    const { claim, document, history } = await of.view(number, 'tomas');
    expect(claim).toMatchObject({ state: 'draft', version: 2, deciders: [] });
    expect([document.lines.length, history.at(-1).kind]).toEqual([1, 'called back']);
    expect((await of.act('siobhan', number, 'approve')).status).toBe(403);
    const waits = (await of.by.siobhan.get('/approvals')).body.waiting.map((w: any) => w.number);
    expect(waits).not.toContain(number);
    await edit(number, '1', { amount: { amount: '30.00', currency: 'EUR' } });
    of.fine(await handInAgain(number));
    expect(await toPay(number, 'siobhan')).toBe('30.00');
    const versions = await api
      .owner('claim_versions as v')
      .join('claims as c', 'c.id', 'v.claim_id')
      .where('c.number', number)
      .orderBy('v.version')
      .pluck('v.submitted');
    expect(versions.map((v) => v.claim.lines[0].amount)).toEqual(['31.00', '30.00']);
  });
  it('is theirs alone to take back, and only while it is with approvers', async () => {
    const number = await of.inReview([of.line('32.00')]);
    expect((await of.act('tomas', number, 'call-back')).body.code).toBe('wrong-state');
    const other = await of.submitted([of.line('33.00')]);
    expect((await of.act('siobhan', other, 'call-back')).body.code).toBe('not-yours');
    of.fine(await of.act('tomas', other, 'call-back'));
    of.fine(await of.act('tomas', other, 'withdraw'));
    of.fine(await of.act('tomas', other, 'bring-back'));
    expect((await of.view(other, 'tomas')).claim).toMatchObject({ state: 'draft', version: 2 });
  });
});

describe('a plan, and an advance', () => {
  it('are taken back, ended and taken up again by who asks for them', async () => {
    const { by, fine } = of;
    const asked = { kind: 'trip', purpose: 'Cash', amount: '50.00', currency: 'EUR' };
    const { number } = fine(await by.tomas.post('/advances', asked));
    const step = async (name: string) => {
      const { revision } = await api.owner('advances').where({ id: number }).first('revision');
      return fine(await by.tomas.post(`/advances/${number}/${name}`, { revision })).advance.state as string;
    };
    const states = [];
    for (const name of ['request', 'call-back', 'withdraw', 'bring-back', 'request']) states.push(await step(name));
    expect(states).toEqual(['requested', 'draft', 'withdrawn', 'draft', 'requested']);
  });
});
