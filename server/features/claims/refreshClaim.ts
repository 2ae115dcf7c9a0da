import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Case } from '../../../core/documents/case.schema.ts';
import { readCase, writePath } from '../../../core/documents/readCase.ts';
import { toMinor } from '../../../core/numbers/amount.ts';
import { reviewCase } from '../../../core/evidence/comparisons/reviewCase.ts';
import { TIE_KINDS, type Tie } from '../../../core/evidence/comparisons/tie.types.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Db } from '../../platform/db/connect.ts';
import { buildCase, type BuiltCase } from './buildCase.ts';
import { selectMarks, updateClaim, upsertAssessment, type ClaimRow, type MarkRow } from './claims.queries.ts';

/** A claim with everything computed of it now. */
export interface AssessedClaim extends BuiltCase {
  assessment: Assessment;
  ties: Tie[];
  marks: MarkRow[];
}

/** Builds and assesses a claim from the database; nothing is written. An impossible claim is refused with the path of the fault. */
export async function assessClaim(db: Db, claim: ClaimRow, postingDate: string): Promise<AssessedClaim> {
  const built = await buildCase(db, claim, postingDate);
  const document = validCase(built.document);
  const marks = await selectMarks(db, { claim_id: claim.id, version: claim.version });
  return { ...built, document, ...reviewCase(document, built.evidence), marks };
}

/** The case when it is valid; refused with the path of its first fault when it is not. */
export function validCase(document: Case): Case {
  const read = readCase(document);
  if (read.ok) return read.case;
  const { path, message } = read.problems[0]!;
  throw new Refused('invalid', { problem: `${writePath(path)}: ${message}`, path: writePath(path) });
}

/** Assesses a claim after a change and stores the result, what it was computed from, and the queue's summary of it. */
export async function refreshClaim(trx: Db, claim: ClaimRow, postingDate: string): Promise<AssessedClaim> {
  const assessed = await assessClaim(trx, claim, postingDate);
  const { document, assessment } = assessed;
  const stored = { revision: claim.revision, document, result: assessment };
  await upsertAssessment(trx, { claim_id: claim.id, version: claim.version }, stored, assessment.findings);
  await updateClaim(trx, claim.id, summaryOf(claim, assessed));
  return assessed;
}

/** The state of a tie with what the reviewer said of it: waived and seen count as dealt with. */
export function settledState(tie: Tie, marks: readonly MarkRow[]): Tie['state'] | 'waived' | 'seen' {
  const mark = marks.find((m) => m.line_id === tie.line && m.kind === tie.kind)?.mark;
  if (mark === 'waived' && (tie.state === 'off' || tie.state === 'open')) return 'waived';
  if (mark === 'seen' && tie.state === 'open') return 'seen';
  return tie.state;
}

const WORST_FIRST = ['off', 'open', 'waived', 'seen', 'tied', 'none'] as const;

function summaryOf(claim: ClaimRow, { assessment, ties, marks, document }: AssessedClaim) {
  const states = ties.map((tie) => ({ tie, state: settledState(tie, marks) }));
  const worstOf = (kind: string) =>
    WORST_FIRST.find((s) => states.some((x) => x.tie.kind === kind && x.state === s)) ?? 'none';
  const count = (severity: string) => assessment.findings.filter((f) => f.severity === severity).length;
  const loose = new Set(states.filter((x) => x.state === 'off' || x.state === 'open').map((x) => x.tie.line));
  const entity = document.book.entities[0]!;
  const { due, payable, receivable } = assessment.settlement;
  const toPay = due === null ? null : toMinor(payable!, claim.currency) - toMinor(receivable!, claim.currency);
  const atRisk = assessment.lines
    .filter((l) => loose.has(l.id))
    .reduce((a, l) => a + (l.ledgerAmount ? abs(toMinor(l.ledgerAmount, entity.currency)) : 0n), 0n);
  const offs = states.filter((x) => x.state === 'off').length;
  const opens = states.filter((x) => x.state === 'open').length;
  return {
    to_pay: toPay,
    at_risk: atRisk,
    ties: JSON.stringify(Object.fromEntries(TIE_KINDS.map((kind) => [kind, worstOf(kind)]))),
    stops: count('stop'),
    asks: count('ask'),
    attention: claim.hold_reason
      ? -1
      : Math.min(count('stop'), 99) * 1_000_000 + Math.min(offs, 99) * 10_000 + Math.min(opens, 99) * 100,
  };
}

const abs = (value: bigint): bigint => (value < 0n ? -value : value);
