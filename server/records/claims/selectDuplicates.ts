import { reasonOf } from '../../../core/evidence/duplicates/findDuplicates.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Evidence } from '../../../core/evidence/comparisons/tie.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './claims.queries.ts';
import { MOST_CANDIDATES, selectCandidates, type CandidateRow } from './evidence.queries.ts';

/** Lines of anybody that may be the same spending as a line of this claim, by line id; and lines with too much alike to look at. */
export async function selectDuplicates(
  db: Db,
  key: VersionKey,
): Promise<Pick<Evidence, 'duplicates' | 'duplicatesCut'>> {
  const candidates = [...groupBy(await selectCandidates(db, key), (c) => c.ofLine)];
  const found = candidates.map(([line, some]) => [line, some.slice(0, MOST_CANDIDATES).flatMap(duplicateOf)] as const);
  const cut = candidates.filter(([, some]) => some.length > MOST_CANDIDATES).map(([line]) => line);
  return {
    duplicates: Object.fromEntries(found.filter(([, alike]) => alike.length > 0)),
    ...(cut.length > 0 ? { duplicatesCut: cut } : {}),
  };
}

function duplicateOf(c: CandidateRow) {
  const reason = reasonOf(c.own, c);
  if (reason === null || reason === 'same charge') return [];
  const { claim, line, claimant, currency, date, merchant } = c;
  return [{ claim, line, claimant, amount: fromMinor(c.amount, currency), currency, date, merchant, reason }];
}
