import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { canonical } from '../../../core/numbers/canonical.ts';
import { assessAgain } from '../../features/claims/reassess.service.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { systemClock } from '../../platform/ports/clock.ts';
import { useOfBook, useOfRate } from '../claims/usesOf.ts';
import { rebuildBook } from './sharedBook.ts';
import { ownersAgree } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let maeve: Client;
let ines: Client;
beforeAll(async () => {
  api = await startApi('rules', { work: true });
  [maeve, ines] = [await api.as('maeve.tarrant'), await api.as('ines.quadros', api.second)];
});
afterAll(() => api.close());

const view = async (number: string) => (await maeve.get(`/claims/${number}`)).body;
const left = async (number: string, code: string) =>
  (await view(number)).document.own.left.find((l: any) => l.dimension === 'grant' && l.code === code).left;
const charge = async (number: string, line: string, client = maeve) => {
  const { claim } = await view(number);
  const answer = await client.put(`/claims/${number}/lines/${line}`, {
    revision: claim.revision,
    set: { coding: { grant: 'G-118', fund: '20' } },
  });
  await ownersAgree(api, number);
  return answer;
};

describe('rules of the book', () => {
  it('show in the matrix with their difference and the person to ask', async () => {
    const { ties, assessment } = await view('C-1004');
    expect(ties.find((t: any) => t.line === '2' && t.kind === 'limit')).toMatchObject({
      state: 'off',
      difference: '+8.00',
    });
    expect(assessment.findings).toEqual(
      expect.arrayContaining([expect.objectContaining({ code: 'lodging-gb', severity: 'ask' })]),
    );
    const wrong = await maeve.put('/claims/C-1001/lines/1', {
      revision: (await view('C-1001')).claim.revision,
      set: { coding: { grant: 'G-118' } },
    });
    expect(wrong.body.assessment.findings).toEqual(
      expect.arrayContaining([
        expect.objectContaining({
          code: 'grant-fund',
          severity: 'stop',
          says: expect.stringContaining('Ask Odd Fjellheim'),
        }),
      ]),
    );
  });

  it('stop a claim that exceeds a grant', async () => {
    const { claim, assessment } = await view('C-1006');
    expect(assessment.findings).toEqual(
      expect.arrayContaining([expect.objectContaining({ code: 'budget-over', line: null, difference: '28.00' })]),
    );
    expect((await maeve.post('/claims/C-1006/clear', { revision: claim.revision })).body.code).toBe('has-stops');
  });
});

describe('what is left of a budget', () => {
  it('goes down when another claim is cleared, and two claims at once cannot both take the rest', async () => {
    expect(await left('C-1005', 'G-118')).toBe('260.00');
    await charge('C-1005', '2');
    await charge('C-1012', '1');
    await charge('C-1013', '1');
    const { revision } = (await view('C-1005')).claim;
    expect((await maeve.post('/claims/C-1005/clear', { revision })).status).toBe(200);
    await vi.waitFor(async () => expect(Number(await left('C-1012', 'G-118'))).toBeLessThan(260), 20_000);
    const remaining = Number(await left('C-1012', 'G-118'));
    await api
      .owner('budgets')
      .where({ code: 'G-118' })
      .update({ amount: 26_000 - Math.round(remaining * 100) + 20_000 });
    const revisions = [(await view('C-1012')).claim.revision, (await view('C-1013')).claim.revision];
    const answers = await Promise.all([
      maeve.post('/claims/C-1012/clear', { revision: revisions[0] }),
      ines.post('/claims/C-1013/clear', { revision: revisions[1] }),
    ]);
    const cost = async (number: string) =>
      Number((await view(number)).assessment.lines[0].parts[0].shares[0].ledgerCost);
    const together = (await cost('C-1012')) + (await cost('C-1013'));
    const cleared = answers.filter((a) => a.status === 200).length;
    expect(cleared).toBe(together <= 200 ? 2 : 1);
    expect(answers.filter((a) => a.status !== 200).every((a) => a.body.code === 'has-stops')).toBe(true);
  });
});

describe('an assessment that was kept', () => {
  it('is made again when a rate it used, or the book of its entity, changed, and the act that changed it is not', async () => {
    const before = await view('C-1004');
    await api
      .owner('rates')
      .where({ to_currency: 'GBP' })
      .update({ rate: api.owner.raw('rate * 2') });
    await api.owner.transaction(async (trx) => rebuildBook(trx, 'IE'));
    expect((await view('C-1004')).assessment).toEqual(before.assessment);
    await assessAgain({ db: api.app, clock: systemClock }, useOfRate('GBP'));
    const after = await view('C-1004');
    expect(after.assessment.settlement.due).not.toBe(before.assessment.settlement.due);
    expect([after.claim.revision, after.history.length]).toEqual([before.claim.revision, before.history.length]);
    await api
      .owner('limits')
      .where({ id: 'lodging-gb' })
      .update({ rule: api.owner.raw(`jsonb_set(rule, '{cap,amount}', '"500.00"')`) });
    await api.owner.transaction(async (trx) => rebuildBook(trx, 'IE'));
    await assessAgain({ db: api.app, clock: systemClock }, useOfBook('IE'));
    expect((await view('C-1004')).assessment.findings.some((f: any) => f.code === 'lodging-gb')).toBe(false);
  });
  it('is not made again once it is posted', async () => {
    const posted = await view('C-1017');
    const uses = await api
      .owner('assessment_uses as u')
      .join('claims as c', 'c.id', 'u.claim_id')
      .where('c.number', 'C-1017');
    expect(uses).toEqual([]);
    await assessAgain({ db: api.app, clock: systemClock }, 'only:C-1017');
    expect((await view('C-1017')).assessedAt).toBe(posted.assessedAt);
  });
  it('names its book by hash, which is kept once for all claims of an entity', async () => {
    const [a, b] = [await view('C-1001'), await view('C-1005')];
    expect(a.bookHash).toBe(b.bookHash);
    const { body } = await maeve.get(`/books/${a.bookHash}`);
    expect([body.entities[0].id, sha256(canonical(body))]).toEqual(['IE', a.bookHash]);
    expect((await (await api.as('tomas.brandao')).get(`/books/${a.bookHash}`)).status).toBe(403);
  });
});

describe('the history as a file', () => {
  it('is given to auditors, one event a line, each following the one before', async () => {
    const auditor = await api.as('ottoline.marchbanks');
    const { body, headers } = await auditor.get('/history.jsonl');
    expect(headers.get('content-disposition')).toContain('history.jsonl');
    const events = String(body)
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l));
    expect(events).toHaveLength(Number((await api.owner('events').count().first())!.count));
    expect(events[0]).toMatchObject({
      format: 'ebbet-event/2',
      seq: 1,
      previousHash: '0'.repeat(64),
    });
    const next = events.find((e) => e.seq === 2)!;
    const first = events.find((e) => e.seq === 1 && e.recordKind === next.recordKind && e.recordId === next.recordId)!;
    expect(next.previousHash).toBe(first.hash);
  });
});
