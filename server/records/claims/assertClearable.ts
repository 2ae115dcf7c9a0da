import { isLoose } from '../../../core/evidence/comparisons/stateWithMark.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { shownTies } from './assessClaim.ts';
import { fingerprintOf, type AssessedClaim } from './assessed.ts';
import type { MarkRow } from './marks.queries.ts';

/**
 * Refuses what must not reach the ledger: a stop, a comparison that is not dealt with, an account that only the system
 * moves. Marks count only for the comparison they were made of.
 */
export function assertClearable(
  { assessment, ties, document, movements }: AssessedClaim,
  marks: readonly MarkRow[],
): void {
  const stop = assessment.findings.find((f) => f.severity === 'stop');
  if (stop)
    throw new Refused('has-stops', { first: `${stop.line ? `line ${stop.line}: ` : ''}${stop.says}`, line: stop.line });
  const holding = marks.filter((m) => ties.some((t) => sameCell(t, m) && fingerprintOf(t) === m.about));
  const loose = shownTies(ties, holding).filter((tie) => isLoose(tie.shown));
  if (loose.length > 0)
    throw new Refused('ties-open', {
      count: loose.length,
      loose: loose.length === 1 ? '1 comparison is' : `${loose.length} comparisons are`,
      cells: loose.map((t) => `line ${t.line} ${t.kind}`).join(', '),
      line: loose[0]!.line,
      kind: loose[0]!.kind,
    });
  const { accounts, cards } = document.book.entities[0]!;
  const control = new Set([...CONTROLLED.map((name) => accounts[name]), ...Object.values(cards ?? {})]);
  const own = new Set(movements.map((m) => m.position));
  const loud = assessment.journal.find((row, index) => control.has(row.account) && !own.has(index + 1));
  if (loud) throw new Refused('control-account', { account: loud.account, line: loud.line });
}

const CONTROLLED = [
  'claimantPayable',
  'supplierPayable',
  'cardClearing',
  'centralClearing',
  'staffAdvances',
  'staffReceivable',
] as const;

const sameCell = (tie: { line: string; kind: string }, mark: MarkRow): boolean =>
  tie.line === mark.line_id && tie.kind === mark.kind;
