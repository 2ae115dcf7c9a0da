import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sayWhy, STATEMENT, viewOf } from '../../../test/fixtures/acts.ts';
import { systemClock } from '../../platform/ports/clock.ts';
import { assessAgain } from './reassess.service.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let maeve: Client;
beforeAll(async () => {
  api = await startApi('submission');
  maeve = await api.as('maeve.tarrant');
});
afterAll(() => api.close());

const view = (number: string, client = maeve) => viewOf(client, number);

describe('submitting and approving', () => {
  it('goes from a draft to the Desk, by whom it concerns alone', async () => {
    const [tomas, odd, siobhan] = [
      await api.as('tomas.brandao'),
      await api.as('odd.fjellheim'),
      await api.as('siobhan.odowd'),
    ];
    const own = await view('C-1031', tomas);
    expect((await maeve.get('/claims/C-1031')).status).toBe(404);
    const bare = await tomas.post('/claims/C-1031/submit', { revision: own.claim.revision });
    expect(bare.body.code).toBe('word-wanted');
    const seen = await sayWhy(tomas, 'C-1031');
    const hand = (more: object) => tomas.post('/claims/C-1031/submit', { revision: seen, ...more });
    for (const wrong of [{}, { accepted: 'policy of 2019-01-01' }])
      expect((await hand(wrong)).body.code).toBe('statement-wanted');
    const submitted = await hand({ accepted: STATEMENT });
    expect(submitted.body.claim).toMatchObject({ state: 'with approver', version: 1, deciders: ['Siobhán O’Dowd'] });
    const { revision } = submitted.body.claim;
    expect((await tomas.post('/claims/C-1031/approve', { revision })).status).toBe(403);
    expect((await odd.post('/claims/C-1031/approve', { revision })).body.code).toBe('not-yours');
    const waits = async (who: Client) => (await who.get('/approvals')).body.waiting.map((w: any) => w.number);
    expect([await waits(siobhan), await waits(odd)].map((w) => w.includes('C-1031'))).toEqual([true, false]);
    const version = await api
      .owner('claim_versions as v')
      .join('claims as c', 'c.id', 'v.claim_id')
      .where({ number: 'C-1031' })
      .first('v.*');
    expect(version.submitted.claim.lines).toHaveLength(own.document.lines.length);
    expect(version.submitted.statement).toMatchObject({ version: STATEMENT });
    expect(version.submitted.claim.explanations[0].text).toBe('It was agreed.');
    expect(version.submitted.evidence).toMatch(/^[0-9a-f]{64}$/);
    const back = await tomas.post('/claims/C-1031/call-back', { revision });
    expect(back.body.claim).toMatchObject({ state: 'draft', version: 2 });
    expect(await waits(siobhan)).not.toContain('C-1031');
    const again = await siobhan.post('/claims/C-1031/approve', { revision: revision + 1 });
    expect(again.body.code).toBe('not-yours');
  });
  it('approves what is theirs to approve, and never their own', async () => {
    const odd = await api.as('odd.fjellheim');
    const { claim, audience } = await view('C-1024', odd);
    expect(audience).toBe('finance');
    const { body } = await odd.post('/claims/C-1024/approve', { revision: claim.revision });
    expect(body.claim).toMatchObject({ state: 'with approver', deciders: ['Siobhán O’Dowd'] });
    const { revision } = body.claim;
    const last = await (await api.as('siobhan.odowd')).post('/claims/C-1024/approve', { revision });
    expect(last.body.claim.state).toBe('in review');
    expect((await odd.post('/claims/C-1025/return', { revision: 1, reason: 'No plan' })).body.code).toBe('stale');
    await api.owner('claims').where({ number: 'C-1025' }).update({ claimant_id: 'P03' });
    const mine = (await view('C-1025', odd)).claim;
    expect((await odd.post('/claims/C-1025/approve', { revision: mine.revision })).body.code).toBe('own-record');
  });
  it('needs something to approve', async () => {
    const pavel = await api.as('pavel.hruska');
    const { rows } = await api.owner
      .raw(`insert into claims (number, entity_id, claimant_id, preparer_id, currency, state, purpose, begun_on)
      values ('X-EMPTY', 'IE', 'P10', 'P10', 'EUR', 'draft', 'Empty', '2026-01-01') returning id`);
    await api.owner('claim_versions').insert({ claim_id: rows[0].id, version: 1 });
    const submit = () => pavel.post('/claims/X-EMPTY/submit', { revision: 1 });
    expect((await submit()).body.code).toBe('no-lines');
  });
});

describe('what a claimant learns', () => {
  it('is nothing of other people’s claims, of budgets, or of what finance says among itself', async () => {
    const draft = await api.owner('claims').where({ state: 'draft' }).whereLike('number', 'C-%').first();
    const { email } = await api.owner('people').where({ id: draft.claimant_id }).first();
    const owner = await api.as(email.split('@')[0]);
    const { claim, document } = await view('C-1002');
    const line = document.claim.lines[0];
    const at = { claim_id: draft.id, version: 1, id: '1' };
    const copied = { amount: line.amount, currency: 'JPY', date: line.date, merchant: line.merchant, receipt_id: null };
    await api.owner('tax_entries').where({ claim_id: draft.id }).delete();
    await api.owner('lines').where(at).update(copied);
    await assessAgain({ db: api.app, clock: systemClock }, `only:${draft.number}`);
    const kept = await api.owner('assessments').where({ claim_id: draft.id }).first();
    expect(JSON.stringify(kept.evidence.duplicates)).toContain('C-1002');
    const seen = await view(draft.number, owner);
    expect(seen.document.lines[0].amount).toBe(line.amount);
    expect(JSON.stringify(seen)).not.toContain('C-1002');
    expect(JSON.stringify(seen)).not.toContain(claim.claimant);
    for (const hidden of ['marks', 'evidence', 'assessment', 'ties', 'bookHash'])
      expect(Object.keys(seen)).not.toContain(hidden);
  });
  it('does not include a grant that is used up', async () => {
    const siobhan = await api.as('siobhan.odowd');
    expect((await view('C-1006')).assessment.findings.some((f: any) => f.code === 'budget-over')).toBe(true);
    const seen = await view('C-1006', siobhan);
    expect([seen.audience, seen.findings.some((f: any) => f.code === 'budget-over')]).toEqual(['claimant', false]);
  });
});
