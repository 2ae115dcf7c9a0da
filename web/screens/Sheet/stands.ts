import { canonical } from '../../../core/numbers/canonical.ts';
import type { FinanceAnswer } from '../../api/claims.ts';

/** What is looked at of a claim before and after somebody else's act. */
export type Looked = Pick<FinanceAnswer, 'queries'> & {
  claim: Pick<FinanceAnswer['claim'], 'state' | 'version'>;
  document: Pick<FinanceAnswer['document'], 'claim'>;
};

const alike = (before: unknown, after: unknown): boolean => canonical(before as never) === canonical(after as never);
const sameState = (before: Looked, after: Looked): boolean =>
  before.claim.state === after.claim.state && before.claim.version === after.claim.version;
/** What was asked and answered: who decides about the whole has read it. */
const asked = ({ queries }: Looked) => queries.map((q) => [q.id, q.sent, q.answer?.text ?? null]);

/**
 * Whether an act on the whole claim still means what it meant: its lines, its state and what was asked and answered are the same.
 * Marks on comparisons, who looks, holds and codes agreed to change nothing of that.
 */
export const sameClaim = (before: Looked, after: Looked): boolean =>
  sameState(before, after) && alike(before.document.claim, after.document.claim) && alike(asked(before), asked(after));

/** Whether an act on some lines still means what it meant: those lines are the same, whatever became of others. */
export const sameLines =
  (ids: readonly string[]) =>
  (before: Looked, after: Looked): boolean => {
    const of = ({ document }: Looked) => document.claim.lines.filter((l) => ids.includes(l.id));
    return sameState(before, after) && alike(of(before), of(after));
  };
