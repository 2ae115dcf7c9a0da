import { reasonOf } from '../../../core/evidence/duplicates/findDuplicates.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Evidence } from '../../../core/evidence/comparisons/tie.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './versionKey.ts';
import { selectCandidates, type CandidateRow } from './evidence.queries.ts';

/** What is alike of each line. */
export type Alike = Pick<Evidence, 'duplicates' | 'duplicatesCut'>;

/**
 * Lines of anybody that may be the same spending as a line of this claim, by line id; and lines with too much alike to look at.
 * @param only of these lines alone; of all without it
 */
export async function selectDuplicates(db: Db, key: VersionKey, only: readonly string[] | null = null): Promise<Alike> {
  const { candidates, cut } = await selectCandidates(db, key, only);
  const found = [...groupBy(candidates, (c) => c.ofLine)].map(
    ([line, some]) => [line, some.flatMap(duplicateOf)] as const,
  );
  return {
    duplicates: Object.fromEntries(found.filter(([, alike]) => alike.length > 0)),
    ...(cut.size > 0 ? { duplicatesCut: [...cut].sort() } : {}),
  };
}

function duplicateOf(c: CandidateRow) {
  const reason = reasonOf(c.own, c);
  if (reason === null || reason === 'same charge') return [];
  const { claim, line, claimant, currency, date, merchant } = c;
  return [{ claim, line, claimant, amount: fromMinor(c.amount, currency), currency, date, merchant, reason }];
}
