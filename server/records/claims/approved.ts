import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Claim } from '../../../core/documents/case.schema.ts';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import { chargedCodes, type CodeCharge } from '../../../core/routing/chargedCodes.ts';
import { selectSettings } from '../../platform/acts/settings.queries.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectApproved, upsertApproved, type ApprovedFigures } from './approved.queries.ts';
import { assessClaim, keptClaim } from './assessClaim.ts';
import type { AssessedClaim } from './assessed.ts';
import type { LockedClaim } from './claimStore.ts';
import { selectSubmitted, type ClaimRow } from './claims.queries.ts';
import type { VersionKey } from './versionKey.ts';

/** Codes that somebody answers for; what fund or kind of spending they take follows from them. */
export const ANSWERED_FOR = ['costCentre', 'project', 'grant'] as const;

/** What a claim pays or charges beyond what was approved; amounts are decimal strings. */
export interface Raised {
  due: { approved: string; now: string } | null;
  codes: CodeCharge[];
}

type Document = AssessedClaim['document'];
type Computed = Pick<AssessedClaim, 'assessment'> & {
  document: Pick<Document, 'claim' | 'postingDate'> & {
    book: { entities: readonly Pick<Document['book']['entities'][number], 'currency' | 'rateDate'>[] };
  };
};
type Raisable = Computed & Pick<AssessedClaim, 'evidence'>;

/** What a claim comes to as it is approved: what is due, and what each code that somebody answers for is charged. */
export function figuresOf({ assessment, document: { book, claim } }: Computed): ApprovedFigures {
  const { due, currency } = assessment.settlement;
  return {
    due: due === null ? null : toMinor(due, currency),
    charged: chargesOf(assessment, book.entities[0]!.currency),
    claim,
  };
}

const chargesOf = (assessment: Pick<Assessment, 'lines'>, ledger: string): Record<string, string> =>
  Object.fromEntries(
    chargedCodes(assessment, ANSWERED_FOR, ledger).map((c) => [
      `${c.dimension} ${c.code}`,
      c.amount ?? fromMinor(0n, ledger),
    ]),
  );

/** Keeps what a version came to when it was approved. */
export async function keepApproved(trx: Db, key: VersionKey, at: Date): Promise<void> {
  await upsertApproved(trx, key, figuresOf(await keptClaim(trx, key)), at);
}

/** What is charged to some codes now is what their owners agreed to. */
export async function keepAgreed(trx: Db, key: VersionKey, codes: readonly string[], at: Date): Promise<void> {
  const kept = await keptClaim(trx, key);
  const now = figuresOf(kept);
  const approved = await approvedOf(trx, key, ledgerOf(kept));
  if (!approved) return;
  const agreed = codes.flatMap((code) => (now.charged[code] === undefined ? [] : [[code, now.charged[code]]]));
  await upsertApproved(trx, key, { ...approved, charged: { ...approved.charged, ...Object.fromEntries(agreed) } }, at);
}

/** What was approved of a version; of one approved before this was kept, what was submitted. */
async function approvedOf(db: Db, key: VersionKey, ledger: string): Promise<ApprovedFigures | null> {
  const kept = await selectApproved(db, key);
  if (kept) return kept;
  const frozen = await selectSubmitted<{ assessment: Assessment; claim: Claim }>(db, key);
  if (!frozen) return null;
  const { due, currency } = frozen.assessment.settlement;
  return {
    due: due === null ? null : toMinor(due, currency),
    charged: chargesOf(frozen.assessment, ledger),
    claim: frozen.claim,
  };
}

/**
 * What an assessed claim pays, or charges to a code, beyond what was approved and the tolerance (`raised-tolerance-percent`, of
 * each approved figure). Where the rate is that of the posting, what was approved is computed by the same rates first.
 */
export async function raisedOf(trx: Db, row: ClaimRow, at: VersionKey, assessed: Raisable): Promise<Raised> {
  const approved = await approvedOf(trx, at, ledgerOf(assessed));
  if (!approved) return { due: null, codes: [] };
  const { 'raised-tolerance-percent': percent = 0 } = await selectSettings(trx, ['raised-tolerance-percent']);
  const raised = beyond(approved, assessed, Number(percent));
  const floats = assessed.document.book.entities[0]!.rateDate === 'posting';
  if (!floats || (raised.due === null && raised.codes.length === 0)) return raised;
  const subject = { claim: approved.claim, evidence: assessed.evidence };
  const same = await assessClaim(trx, row, subject, assessed.document.postingDate);
  const now = figuresOf(same);
  // what an owner agreed to afterwards is not in the approved document
  return beyond({ ...now, charged: { ...approved.charged, ...now.charged } }, assessed, Number(percent));
}

const ledgerOf = ({ document }: Pick<Computed, 'document'>): string => document.book.entities[0]!.currency;

function beyond(approved: ApprovedFigures, assessed: Computed, percent: number): Raised {
  const ledger = ledgerOf(assessed);
  const { currency } = assessed.assessment.settlement;
  const now = figuresOf(assessed);
  const codes = chargedCodes(assessed.assessment, ANSWERED_FOR, ledger).filter((c) => {
    const before = approved.charged[`${c.dimension} ${c.code}`];
    if (before === undefined) return true;
    return c.amount !== null && isMore(toMinor(before, ledger), toMinor(c.amount, ledger), percent);
  });
  const due = now.due !== null && isMore(approved.due ?? 0n, now.due, percent);
  return {
    due: due ? { approved: fromMinor(approved.due ?? 0n, currency), now: fromMinor(now.due!, currency) } : null,
    codes,
  };
}

/** Whether a figure is more than one before it by more than so many percent of it. */
const isMore = (before: bigint, now: bigint, percent: number): boolean => {
  const tolerated = (before < 0n ? -before : before) * BigInt(Math.round(percent * 100));
  return (now - before) * 10_000n > tolerated;
};

/** What a claim comes to beyond what was approved, in words; null where it does not. */
export async function sayRaised(db: Db, row: ClaimRow, at: VersionKey, assessed: Raisable): Promise<string | null> {
  const { due, codes } = await raisedOf(db, row, at, assessed);
  if (!due && codes.length === 0) return null;
  const { currency } = assessed.assessment.settlement;
  const ledger = ledgerOf(assessed);
  const what = [
    ...(due ? [`due ${due.now} ${currency}, approved ${due.approved}`] : []),
    ...codes.map((c) => `${c.code} ${c.amount ?? 'unknown'} ${ledger}`),
  ];
  return what.join('; ');
}

/** Refuses to let through what pays or charges more than was approved: who approves is asked again first. */
export async function refuseRaised(
  trx: Db,
  { row, at }: Pick<LockedClaim, 'row' | 'at'>,
  assessed: AssessedClaim,
): Promise<void> {
  const what = await sayRaised(trx, row, at, assessed);
  if (what) throw new Refused('more-than-approved', { what });
}
