import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { handIn } from '../../../test/fixtures/acts.ts';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { systemClock } from '../../platform/ports/clock.ts';
import { postingDates } from '../book/postingDate.ts';
import { assessClaim, assessRows, keptClaim, preparedSubject } from './assessClaim.ts';
import { lockClaimRow } from './claims.queries.ts';
import { storedAssessment, writtenDraft } from './writtenDraft.ts';

/** What a process remembers of a claim that is written saves time and changes nothing: each edit leaves what a look at all leaves. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
let at: Client[];
beforeAll(async () => {
  api = await startApi('written_draft');
  of = await claimsOfTomas(api);
  at = [await api.as('tomas.brandao'), await api.as('tomas.brandao', api.second)];
});
afterAll(() => api.close());

let seed = 11;
const pick = <T>(all: readonly T[]): T => all[(seed = (seed * 48271) % 2147483647) % all.length]!;
/** Few of each, so that lines become alike, and stop being so, at every other edit. */
const fields = () => ({
  merchant: pick(['Quay Stores', 'Petrel Print', 'Pier']),
  date: daysAgo(pick([3, 4])),
  amount: { amount: pick(['5.00', '6.00', '80.00']), currency: 'EUR' },
});
const newLine = () => ({ ...of.line('5.00'), ...fields() });

/** What is stored of a draft, and what computing all of it anew gives. */
const storedAndAnew = (number: string) =>
  api.owner.transaction(async (trx: any) => {
    const row = (await lockClaimRow(trx, number))!;
    const kept = await keptClaim(trx, { claim_id: row.id, version: row.version });
    const { today, posting } = await postingDates(trx, systemClock, row.entity_id);
    const anew = await assessClaim(trx, row, await preparedSubject(trx, row, today), posting);
    const rows = await trx('findings')
      .where({ claim_id: row.id, version: row.version })
      .orderBy('position')
      .select('code', 'severity', 'line_id as line', 'item_id as item', 'says', 'difference');
    expect(rows).toEqual(kept.assessment.findings);
    const told = ({ assessment, ties, evidence, document }: Pick<typeof kept, keyof typeof kept>) =>
      JSON.parse(JSON.stringify({ assessment, ties, evidence, document }));
    return { stored: told(kept), anew: told(anew as never) };
  });

/** Lines of one claim are alike only where each has a paper of its own. */
async function withPapers(number: string, lines: string[]) {
  const papers = await api.owner('receipts').orderBy('id').limit(lines.length).pluck('id');
  for (const [i, id] of lines.entries())
    await api.owner.raw(
      `update lines l set receipt_id = ? from claims c where c.id = l.claim_id and c.number = ? and l.id = ?`,
      [papers[i], number, id],
    );
}

describe('a claim that is written', () => {
  it('is after every edit what it is when all of it is computed, on two servers', async () => {
    await of.inReview([newLine(), newLine(), newLine()]);
    const number = await of.draft(Array.from({ length: 9 }, newLine));
    await withPapers(number, ['1', '2', '3', '4', '5']);
    let alike = 0;
    for (let i = 0; i < 40; i += 1) {
      const person = pick(at);
      const { claim, document } = (await person.get(`/claims/${number}`)).body;
      const { revision } = claim;
      const line = pick(document.lines as { id: string }[]).id;
      const act = pick(['cell', 'cell', 'cell', 'cell', 'add', 'remove']);
      const answer = await {
        cell: () => person.put(`/drafts/${number}/lines/${line}`, { revision, set: fields() }),
        add: () => person.post(`/drafts/${number}/lines`, { revision, lines: [newLine()] }),
        remove: () => person.send('DELETE', `/drafts/${number}/lines/${line}?revision=${revision}`),
      }[act as 'cell']();
      expect(answer.status, `${act} ${JSON.stringify(answer.body)}`).toBe(200);
      const { stored, anew } = await storedAndAnew(number);
      expect(stored, `step ${i}: ${act}`).toEqual(anew);
      alike += Object.keys(stored.evidence.duplicates).length;
      const [here, there] = await Promise.all(at.map(async (who) => (await who.get(`/claims/${number}`)).body));
      expect(here).toEqual(there);
    }
    expect(alike).toBeGreaterThan(40);
  });

  it('is stored by each writing anew, also where one transaction writes it twice', async () => {
    const number = await of.draft([newLine()]);
    const key = await api.owner.transaction(async (trx: any) => {
      const row = (await lockClaimRow(trx, number))!;
      const at = { claim_id: row.id, version: row.version };
      await assessRows(trx, systemClock, row, row.revision, writtenDraft(api.owner, at));
      await assessRows(trx, systemClock, { ...row, purpose: 'Written last' }, row.revision);
      return at;
    });
    expect((await storedAssessment(api.owner, key))!.document.claim.purpose).toBe('Written last');
  });

  it('is looked at anew when it is handed in: what somebody else wrote meanwhile is found', async () => {
    const [tomas] = at;
    const line = { ...of.line('43.21'), merchant: 'Slaney Pantry', date: daysAgo(3) };
    const number = await of.draft([line, newLine()]);
    const { revision } = (await tomas!.get(`/claims/${number}`)).body.claim;
    await tomas!.put(`/drafts/${number}/lines/2`, { revision, set: { description: 'Pens' } });
    const other = await of.submitted([line]);
    of.fine(await handIn(tomas!, number));
    const { stored } = await storedAndAnew(number);
    expect(stored.evidence.duplicates['1']).toMatchObject([{ claim: other }]);
  });

  it('is shown as it is stored, also where something else wrote it since', async () => {
    const number = await of.draft([newLine()]);
    const [tomas] = at;
    const { revision } = (await tomas!.get(`/claims/${number}`)).body.claim;
    await tomas!.put(`/drafts/${number}/lines/1`, { revision, set: { description: 'Pens' } });
    await api.owner.raw(
      `update assessments a set document = jsonb_set(document, '{claim,purpose}', '"Other"') from claims c where c.id = a.claim_id and c.number = ?`,
      [number],
    );
    expect((await tomas!.get(`/claims/${number}`)).body.document.purpose).toBe('Other');
  });
});
