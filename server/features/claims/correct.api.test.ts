import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear, ownersAgree, viewOf } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** What finance corrects in review: several lines at once, amounts downwards, who paid, country and rate. */
let api: TestApi;
let maeve: Client;
beforeAll(async () => {
  api = await startApi('correct');
  maeve = await api.as('maeve.tarrant');
});
afterAll(() => api.close());

const view = (number: string, client = maeve) => viewOf(client, number);
const correct = async (number: string, corrections: object[]) =>
  maeve.put(`/claims/${number}/lines`, { revision: (await view(number)).claim.revision, corrections });
const claimantOf = async (number: string) => {
  const { email } = await api
    .owner('claims as c')
    .join('people as p', 'p.id', 'c.claimant_id')
    .where({ number })
    .first('p.email');
  return api.as(email.split('@')[0]);
};
/** A claim in review with a line that fits. */
async function claimWith(fits: (line: any) => boolean) {
  const { claims } = (await maeve.get('/claims')).body;
  for (const { number } of claims.filter((c: any) => !c.own && c.stops === 0)) {
    const seen = await view(number);
    const line = seen.document.claim.lines.find((l: any) => !l.personal && !l.items?.length && fits(l));
    if (line) return { number, line, seen };
  }
  throw new Error('The demo has no such line.');
}
const minor = (amount: string) => Math.round(Number(amount) * 100);

describe('an amount downwards', () => {
  it('leaves the total of own money, with its reason, which the claimant reads; null takes it back', async () => {
    const { number, line, seen } = await claimWith(
      (l) => l.paidBy === 'own' && l.currency === 'EUR' && minor(l.amount) > 500,
    );
    const cut = { amount: '1.01', reason: 'Without the newspaper' };
    const { body } = await correct(number, [{ line: line.id, set: { cut } }]);
    const before = minor(seen.assessment.settlement.payable);
    expect(minor(body.assessment.settlement.payable)).toBe(before - 101);
    expect(body.assessment.findings.filter((f: any) => f.code === 'cut')).toMatchObject([
      { severity: 'note', line: line.id, difference: '1.01' },
    ]);
    const event = body.history.at(-1);
    expect([event.facts.to, event.words]).toEqual([{ cut: '1.01' }, { reason: 'Without the newspaper' }]);
    const theirs = await view(number, await claimantOf(number));
    expect(theirs.document.lines.find((l: any) => l.id === line.id).cut).toEqual(cut);
    const back = await correct(number, [{ line: line.id, set: { cut: null } }]);
    expect(back.body.assessment.settlement).toEqual(seen.assessment.settlement);
    const { id } = await api.owner('claims').where({ number }).first('id');
    const kept = await api.owner('findings').where({ claim_id: id, version: 1 }).orderBy('position').pluck('code');
    expect(kept).toEqual(back.body.assessment.findings.map((f: any) => f.code));
  });
  it('to nothing, as a line that is declined, is of a line that is there', async () => {
    const { revision } = (await view('C-1012')).claim;
    const decline = await maeve.post('/claims/C-1012/decline-line', { revision, line: '99', reason: 'Private' });
    expect(decline.body.code).toBe('not-found');
  });

  it('becomes private on a card, whose amount never changes', async () => {
    const { number, line, seen } = await claimWith((l) => l.paidBy === 'card' && minor(l.amount) > 500);
    const cut = { amount: '2.00', reason: 'The minibar is one’s own' };
    const { body } = await correct(number, [{ line: line.id, set: { cut } }]);
    const figures = (of: any) => of.assessment.lines.find((l: any) => l.id === line.id);
    expect(figures(body).claimAmount).toBe(figures(seen).claimAmount);
    expect(figures(body).parts.map((p: any) => p.personal)).toEqual([false, true]);
    const due = (of: any) => minor(of.assessment.settlement.due);
    const [, own] = figures(body).parts;
    expect(minor(own.claimAmount)).toBeGreaterThan(0);
    expect(due(seen) - due(body)).toBe(minor(own.claimAmount));
  });
  it('is refused where it is more than the line, of another sign or without a reason', async () => {
    const { number, line } = await claimWith((l) => l.paidBy === 'own');
    for (const [amount, reason] of [
      ['99999.00', 'Too much'],
      ['-1.00', 'Upwards'],
      ['0.00', 'Nothing'],
      ['1.00', ' '],
    ]) {
      const { status, body } = await correct(number, [{ line: line.id, set: { cut: { amount, reason } } }]);
      expect([amount, status, body.code]).toEqual([amount, 400, 'invalid']);
    }
  });
});

describe('several lines', () => {
  it('are corrected in one act, all or none', async () => {
    const { claims } = (await maeve.get('/claims')).body;
    const many = claims.find((c: any) => c.number === 'C-1002') ?? claims[0];
    const seen = await view(many.number);
    const ids = seen.document.claim.lines.filter((l: any) => !l.personal && !l.items?.length).map((l: any) => l.id);
    const set = { coding: { costCentre: '420' } };
    const none = await correct(many.number, [...ids.map((line: string) => ({ line, set })), { line: '99', set }]);
    expect(none.body.code).toBe('not-found');
    expect((await view(many.number)).claim.revision).toBe(seen.claim.revision);
    const { body } = await correct(
      many.number,
      ids.map((line: string) => ({ line, set })),
    );
    expect(body.claim.revision).toBe(seen.claim.revision + 1);
    const events = (of: any) => of.history.filter((e: any) => e.kind === 'corrected').length;
    expect(events(body)).toBe(events(seen) + 1);
    for (const id of ids)
      expect(body.document.claim.lines.find((l: any) => l.id === id).coding).toMatchObject({ costCentre: '420' });
  });
  it('say what was changed to the claimant when the claim is cleared', async () => {
    const { number, line } = await claimWith((l) => l.paidBy === 'own' && l.country);
    await correct(number, [{ line: line.id, set: { country: line.country === 'PT' ? 'ES' : 'PT' } }]);
    await ownersAgree(api, number);
    const cleared = await clear(maeve, number);
    expect(cleared.body.history.at(-1).facts.corrected).toContain(line.id);
    const { messages } = (await (await claimantOf(number)).get('/messages')).body;
    const told = messages.find((m: any) => m.number === number && m.subject.includes('is cleared'));
    expect(told.next).toMatch(new RegExp(`^Finance changed lines? .*${line.id}`));
  });
});

describe('who paid, country and rate', () => {
  it('are corrected, stored, and shown beside what was submitted', async () => {
    const { number, line, seen } = await claimWith((l) => l.paidBy === 'own' && l.rate?.kind !== 'own');
    const { body } = await correct(number, [{ line: line.id, set: { paidBy: 'central', country: 'NO' } }]);
    expect(minor(body.assessment.settlement.payable ?? '0')).toBeLessThan(minor(seen.assessment.settlement.payable));
    const row = await api
      .owner('lines as l')
      .join('claims as c', (on) => on.on('c.id', 'l.claim_id').andOn('c.version', 'l.version'))
      .where({ 'c.number': number, 'l.id': line.id })
      .first('l.paid_by', 'l.country');
    expect(row).toEqual({ paid_by: 'central', country: 'NO' });
    const theirs = await view(number, await claimantOf(number));
    expect(theirs.changes.map((c: any) => [c.field, c.to])).toEqual(
      expect.arrayContaining([
        ['country', 'NO'],
        ['paidBy', 'central'],
      ]),
    );
  });
  it('are refused with the reason where they do not go together', async () => {
    const { number, line } = await claimWith(
      (l) => l.paidBy === 'own' && l.currency !== 'EUR' && l.rate?.kind !== 'own',
    );
    const set = { paidBy: 'central', rate: { kind: 'own', value: '1.2' } };
    const { status, body } = await correct(number, [{ line: line.id, set }]);
    expect([status, body.code]).toEqual([400, 'invalid']);
    expect(body.numbers.problem).toContain('own money');
  });
  it('never say otherwise than the bank', async () => {
    const { number, line } = await claimWith((l) => l.paidBy === 'card');
    expect((await correct(number, [{ line: line.id, set: { paidBy: 'own' } }])).body.code).toBe('paid-by-card');
  });
});
