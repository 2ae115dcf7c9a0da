import { assertPostable } from '../../records/claims/assertPostable.ts';
import { actsOpen } from '../../../core/workflow/judgeAct.ts';
import { audienceOf, type Audience } from '../../../core/workflow/audienceOf.ts';
import { BEFORE_POSTING, claimLifecycle, IN_PREPARATION } from '../../../core/workflow/lifecycles/claim.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import type { ClaimInput } from '../../../contract/claims.ts';
import { selectSettings } from '../../platform/acts/settings.queries.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectAttachments } from '../../records/attachments/attachments.queries.ts';
import type { StoredAssessment } from '../../records/claims/assessments.queries.ts';
import { assessClaim, keptClaim, shownTies, subjectAgain } from '../../records/claims/assessClaim.ts';
import { fingerprintOf } from '../../records/claims/assessed.ts';
import { openPeriodOf, proposedPostingDate } from '../../records/book/postingDate.ts';
import { sayRaised } from '../../records/claims/approved.ts';
import type { VersionKey } from '../../records/claims/versionKey.ts';
import { claimFacts } from '../../records/claims/claimStore.ts';
import { storedAssessment } from '../../records/claims/writtenDraft.ts';
import { advancesBeside } from './advances.view.ts';
import { approverView, claimantView, declinedIn, tideOf } from './makersView.ts';
import {
  selectBook,
  selectBookEntity,
  selectOwnAmong,
  selectShownReceipts,
  selectSurroundings,
  type ClaimSurroundings,
} from './view.queries.ts';
import type { Sources } from './view.types.ts';

/**
 * A claim as its audience sees it, from what was stored: nothing is computed when somebody looks. To those it does not
 * concern it does not exist.
 */
export async function viewClaim(
  context: Pick<Context, 'db' | 'clock'>,
  actor: Actor,
  number: string,
): Promise<ClaimInput> {
  const { db } = context;
  const around = await selectSurroundings(db, number);
  const audience = around ? audienceOf(claimFacts(around.row), actor) : null;
  if (!around || !audience) throw new Refused('not-found', { what: 'claim' });
  const key = { claim_id: around.row.id, version: versionFor(audience, around) };
  const [assessed, receipts, attachments, may, advances, proposedDate] = await Promise.all([
    storedAssessment(db, key),
    selectShownReceipts(db, key),
    selectAttachments(db, key),
    actsOf(db, around, actor),
    advancesBeside(context, around.row, key),
    BEFORE_POSTING.includes(around.row.state) ? proposedPostingDate(db, context.clock, around.row.entity_id) : null,
  ]);
  const ownAlike =
    audience === 'claimant' ? await selectOwnAmong(db, claimsAlike(assessed!), actor.id) : new Set<string>();
  const raised = ['finance', 'auditor'].includes(audience) ? await raisedIn(db, around, key, assessed!) : null;
  const sources = { around, raised, ownAlike, assessed: assessed!, receipts, attachments, advances, may, proposedDate };
  switch (audience) {
    case 'claimant':
      return { audience, ...claimantView(sources) };
    case 'approver':
      return { audience, ...approverView(sources) };
    case 'finance':
    case 'auditor':
      return { audience, ...financeView(sources) };
    default:
      return audience satisfies never;
  }
}

const claimsAlike = ({ evidence }: StoredAssessment): string[] =>
  Object.values(evidence.duplicates).flatMap((alike) => alike.map((d) => d.claim));

/** The people who make a claim see the version they work on; everybody else the one that was submitted. */
const versionFor = (audience: Audience, { row }: ClaimSurroundings): number =>
  audience === 'claimant' ? row.version : row.submitted_version!;

/** What this person may do with the claim as it is now; the server judges again when it is done. */
async function actsOf(db: Db, { row }: ClaimSurroundings, actor: Actor) {
  const mayPost = row.state === 'cleared' && row.cleared_by === actor.id;
  const settings = mayPost ? await selectSettings(db, ['clearing-and-posting-apart']) : {};
  return actsOpen(claimLifecycle, claimFacts(row), actor, { isOn: (s) => settings[s] !== false });
}

/** What clearing would be refused for: said before it is tried. */
async function raisedIn(
  db: Db,
  { row }: ClaimSurroundings,
  key: VersionKey,
  { document, result, evidence, book_hash }: StoredAssessment,
): Promise<string | null> {
  if (row.state !== 'in review') return null;
  const book = { entities: [await selectBookEntity(db, book_hash)] };
  return sayRaised(db, row, key, { document: { ...document, book }, assessment: result, evidence });
}

function financeView({ around, raised, assessed, receipts, attachments, advances, may, proposedDate }: Sources) {
  const { header, history, marks, queries, journals, submitted, row } = around;
  const { document, result, ties, evidence } = assessed;
  const { postingDate, claim, own } = document;
  return {
    claim: { ...header, version: row.submitted_version! },
    bookHash: assessed.book_hash,
    document: { postingDate, claim, own },
    assessment: result,
    assessedAt: assessed.assessed_at,
    proposedDate: proposedDate ?? postingDate,
    raised,
    digest: digestOf(result.journal),
    ties: shownTies(ties, marks).map((tie) => ({ ...tie, about: fingerprintOf(tie) })),
    marks: marks.map(({ line_id, about: _, ...m }) => ({ ...m, line: line_id })) as never,
    queries: queries as never,
    evidence,
    attachments,
    advances,
    receipts,
    tide: tideOf(history),
    history: IN_PREPARATION.includes(row.state) ? history.filter(({ kind }) => !BEFORE_SUBMISSION.has(kind)) : history,
    journals,
    submitted: submitted?.claim ?? null,
    declined: declinedIn(around, document.claim, row.submitted_version!),
    may,
  };
}

/** What the makers do to a claim before they submit it again is theirs. */
const BEFORE_SUBMISSION = new Set(['gathered', 'edited', 'line removed', 'paired', 'unpaired']);

/** A fingerprint of a journal, by which a poster proves to have seen this one. */
export const digestOf = (journal: unknown): string => sha256(canonical(journal));

/** The journal a claim would be posted with on a date: computed as posting does, and not kept. */
export async function previewJournal(
  { db, clock }: Pick<Context, 'db' | 'clock'>,
  actor: Actor,
  number: string,
  date: string,
) {
  const around = await selectSurroundings(db, number);
  const audience = around ? audienceOf(claimFacts(around.row), actor) : null;
  if (!around || (audience !== 'finance' && audience !== 'auditor')) throw new Refused('not-found', { what: 'claim' });
  const row = { ...around.row, version: around.row.submitted_version! };
  const key = { claim_id: row.id, version: row.version };
  const kept = await keptClaim(db, key);
  const assessed = await assessClaim(db, row, await subjectAgain(db, row, kept), date);
  const { assessment } = assessed;
  const against = await againstPosting(async () => {
    await openPeriodOf(db, clock, row.entity_id, date);
    await assertPostable(db, { row, at: key }, { assessed, kept }, date);
  });
  return { date, assessment, digest: digestOf(assessment.journal), against };
}

/** What stands against a posting, in words: what checks of it refuse with; null where they refuse nothing. */
async function againstPosting(check: () => Promise<void>): Promise<string | null> {
  try {
    await check();
    return null;
  } catch (error) {
    if (error instanceof Refused) return error.says;
    throw error;
  }
}

/** The shared part of a book, by its hash; the hash is what tells one from another, and nothing in it is secret to finance. */
export async function viewBook({ db }: Pick<Context, 'db'>, hash: string): Promise<unknown> {
  const book = await selectBook(db, hash);
  if (!book) throw new Refused('not-found', { what: 'book' });
  return book.content;
}
