import { type AssessedClaim, type KeptClaim, type Subject } from './assessed.ts';
import type { Case, Claim } from '../../../core/documents/case.schema.ts';
import { readCase } from '../../../core/documents/readCase.ts';
import { joinBook } from '../../../core/documents/splitBook.ts';
import { stateWithMark } from '../../../core/evidence/comparisons/stateWithMark.ts';
import { summariseReview, type Standing } from '../../../core/evidence/comparisons/summariseReview.ts';
import type { Evidence, Tie } from '../../../core/evidence/comparisons/tie.types.ts';
import { sizeOf } from '../../../core/documents/checkSize.ts';
import { compute } from '../../platform/compute/compute.ts';
import type { Db } from '../../platform/db/connect.ts';
import { today, type Clock } from '../../platform/ports/clock.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { currentBook } from '../book/sharedBook.ts';
import { postingDates } from '../book/postingDate.ts';
import { selectWithBook, upsertAssessment } from './assessments.queries.ts';
import type { ClaimRow } from './claims.queries.ts';
import type { VersionKey } from './versionKey.ts';
import { computeLines } from './computeLines.ts';
import { readEvidence } from './evidence.ts';
import { selectLineReceipts } from './evidence.queries.ts';
import { deleteMarks, selectMarks, updateMarkAbout, type MarkRow } from './marks.queries.ts';
import { selectOwnBook } from './ownBook.ts';
import { facetsOf, searchText, totalOf } from './facetsOf.ts';
import { holdingMarks } from './holdingMarks.ts';
import { cutDeclined } from './declined.ts';
import { readDocument } from './readDocument.ts';
import { usesOf } from './usesOf.ts';
import { reviewDraft, type WrittenDraft } from './writtenDraft.ts';

/** What was last computed of a version; refused when it never was. */
export async function keptClaim(db: Db, key: VersionKey): Promise<KeptClaim> {
  const stored = await selectWithBook(db, key);
  if (!stored) throw new Refused('not-found', { what: 'assessment' });
  const { own, ...rest } = stored.document;
  const document: Case = { ...rest, book: joinBook(stored.book, own) };
  return { document, claim: document.claim, evidence: stored.evidence, assessment: stored.result, ties: stored.ties };
}

/** A version in preparation as its rows say it is, without its evidence. */
export async function claimFromRows(db: Db, row: ClaimRow, submittedOn: string): Promise<Claim> {
  const key = { claim_id: row.id, version: row.version };
  return readClaim(db, row, await selectLineReceipts(db, key), submittedOn);
}

/** A version in preparation as its rows say it is. */
export async function subjectFromRows(
  db: Db,
  claim: ClaimRow,
  submittedOn: string,
  draft: WrittenDraft | null = null,
): Promise<Subject> {
  const key = { claim_id: claim.id, version: claim.version };
  const receipts = await selectLineReceipts(db, key);
  const document = await readClaim(db, claim, receipts, submittedOn);
  return { claim: document, evidence: await readEvidence(db, { claim, lines: document.lines }, receipts, draft) };
}

async function readClaim(
  db: Db,
  row: ClaimRow,
  receipts: Awaited<ReturnType<typeof selectLineReceipts>>,
  submittedOn: string,
): Promise<Claim> {
  const claim = await readDocument(db, row, receipts, submittedOn);
  await cutDeclined(db, { claim_id: row.id, version: row.version }, claim);
  return claim;
}

/** A version in preparation, as if handed in on a day, with the amounts that are computed brought up to the book as it is. */
export async function preparedSubject(
  trx: Db,
  row: ClaimRow,
  submittedOn: string,
  draft: WrittenDraft | null = null,
): Promise<Subject> {
  const subject = await subjectFromRows(trx, row, submittedOn, draft);
  return (await computeLines(trx, row, subject.claim)) ? subjectFromRows(trx, row, submittedOn, draft) : subject;
}

/** A submitted version as it was last assessed, with charges and duplicates as they are now. */
export async function subjectAgain(db: Db, claim: ClaimRow, kept: Subject): Promise<Subject> {
  const { lines } = kept.claim;
  const evidence = await readEvidence(db, { claim, lines }, kept.evidence.receipts);
  return { claim: kept.claim, evidence };
}

/** Assesses a claim for a posting date; nothing is written. An impossible claim is refused with the path of the fault. */
export async function assessClaim(
  db: Db,
  row: ClaimRow,
  { claim, evidence }: Subject,
  postingDate: string,
  draft: WrittenDraft | null = null,
): Promise<AssessedClaim> {
  const book = await currentBook(db, row.entity_id);
  const apart = [{ kind: 'claim', id: row.number }, ...(claim.plan ? [{ kind: 'plan', id: claim.plan.number }] : [])];
  const { own, budgets } = await selectOwnBook(db, { claim, shared: book.content, postingDate, apart });
  const document: Case = { format: 'ebbet-case/1', postingDate, claim, book: joinBook(book.content, own) };
  const review = draft ? reviewDraft(draft, document, evidence, reviewValid) : reviewValid(document, evidence);
  return { own, bookHash: book.hash, evidence, budgets, ...(await review) };
}

async function reviewValid(document: Case, evidence: Evidence) {
  const valid = validCase(document);
  return { document: valid, ...(await compute('reviewCase', sizeOf(valid), valid, evidence)) };
}

/** The case when it is valid; refused with the path of its first fault when it is not. */
export function validCase(document: Case): Case {
  const read = readCase(document);
  if (read.ok) return read.case;
  throw invalid(read.problems[0]!);
}

/** How an assessment is kept: from what it was made, at which revision, and whether the figures may still change. */
export interface Keeping {
  clock: Clock;
  revision: number;
  standing: Standing;
  /** What was computed before, where marks may be of the same comparisons by other rates. */
  before?: KeptClaim;
  /** Posted figures stand; nothing of the book changes them any more. */
  final?: boolean;
  /** What is remembered of a version that is being written. */
  draft?: WrittenDraft | null;
}

/**
 * Stores what was computed of a claim, forgets marks on comparisons that are no longer what was marked, and gives the
 * columns a list shows of it.
 */
export async function keepAssessment(
  trx: Db,
  row: ClaimRow,
  assessed: AssessedClaim,
  { clock, revision, standing, before, final = false, draft = null }: Keeping,
): Promise<Record<string, unknown>> {
  const key = { claim_id: row.id, version: row.version };
  const { document, own, bookHash, evidence, assessment, ties, estimates } = assessed;
  const { book: _, ...rest } = document;
  const stored = {
    revision,
    assessed_at: clock.now(),
    book_hash: bookHash,
    document: { ...rest, own },
    evidence,
    result: assessment,
    ties,
    estimates,
  };
  const by = await upsertAssessment(trx, key, stored, final ? [] : usesOf(assessed));
  if (draft) draft.stored = { by, assessment: stored };
  const marks = await dropStaleMarks(trx, key, assessed, before ?? null);
  return summaryColumns(assessed, marks, standing);
}

async function dropStaleMarks(
  trx: Db,
  key: VersionKey,
  assessed: AssessedClaim,
  before: KeptClaim | null,
): Promise<MarkRow[]> {
  const marks = await selectMarks(trx, key);
  const holding = holdingMarks(marks, assessed, before);
  const find = (of: MarkRow) => holding.find((m) => m.line_id === of.line_id && m.kind === of.kind);
  await deleteMarks(
    trx,
    key,
    marks.filter((m) => !find(m)),
  );
  for (const mark of marks) {
    const now = find(mark);
    if (now && now.about !== mark.about) await updateMarkAbout(trx, key, now);
  }
  return holding;
}

export type ShownTies = ReturnType<typeof shownTies>;
/** The ties of a claim with the state each has after what the reviewer said. */
export function shownTies(ties: readonly Tie[], marks: readonly Pick<MarkRow, 'line_id' | 'kind' | 'mark'>[]) {
  const markOf = new Map(marks.map((m) => [`${m.line_id} ${m.kind}`, m.mark]));
  return ties.map((tie) => ({ ...tie, shown: stateWithMark(tie, markOf.get(`${tie.line} ${tie.kind}`) ?? null) }));
}

/** What the queue shows of a claim, as columns. */
export function summaryColumns(
  { document, assessment, ties }: Pick<KeptClaim, 'document' | 'assessment' | 'ties'>,
  marks: readonly MarkRow[],
  standing: Standing,
): Record<string, unknown> {
  const ledgerCurrency = document.book.entities[0]!.currency;
  const { claim } = document;
  const summary = summariseReview(assessment, shownTies(ties, marks), {
    currency: claim.currency,
    ledgerCurrency,
    standing,
  });
  return {
    to_pay: summary.toPay,
    at_risk: summary.atRisk,
    ties: JSON.stringify(summary.ties),
    stops: summary.stops,
    asks: summary.asks,
    priority: summary.priority,
    facets: facetsOf(document, assessment, summary),
    total: totalOf(assessment, ledgerCurrency),
    search: searchText(document, assessment),
  };
}

/** What a claim waits for now; a hold whose day has come is over. */
export const standingOf = (
  { hold_until, drawn_at, waiting, answered, time_zone }: PendingColumns,
  clock: Clock,
): Standing => ({
  onHold: hold_until !== null && hold_until > today(clock, time_zone),
  waiting,
  answered,
  apart: hold_until !== null || drawn_at !== null,
});
export type PendingColumns = Pick<ClaimRow, 'hold_until' | 'drawn_at' | 'waiting' | 'answered' | 'time_zone'>;

/**
 * Assesses a version in preparation from its rows and keeps the result; the columns to save with it.
 * @param draft what is remembered of it while somebody writes it; without it all is looked for and computed
 */
export async function assessRows(
  trx: Db,
  clock: Clock,
  row: ClaimRow,
  revision: number,
  draft: WrittenDraft | null = null,
) {
  const { today: day, posting } = await postingDates(trx, clock, row.entity_id);
  const assessed = await assessClaim(trx, row, await preparedSubject(trx, row, day, draft), posting, draft);
  const keeping = { clock, revision, standing: standingOf(row, clock), draft };
  return { assessed, columns: await keepAssessment(trx, row, assessed, keeping) };
}
