import { reasonOf } from '../../../core/evidence/duplicates/findDuplicates.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Evidence } from '../../../core/evidence/comparisons/tie.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './claims.queries.ts';
import { selectCandidates } from './evidence.queries.ts';

/** Lines of anybody that may be the same spending as a line of this claim, by line id. */
export async function selectDuplicates(db: Db, key: VersionKey): Promise<Evidence['duplicates']> {
  const judged = (await selectCandidates(db, key)).flatMap((candidate) => {
    const reason = reasonOf(candidate.own, candidate);
    return reason === null || reason === 'same charge' ? [] : [{ ...candidate, reason }];
  });
  const write = (c: (typeof judged)[number]) => ({
    claim: c.claim,
    line: c.line,
    claimant: c.claimant,
    amount: fromMinor(c.amount, c.currency),
    currency: c.currency,
    date: c.date,
    merchant: c.merchant,
    reason: c.reason,
  });
  return Object.fromEntries([...groupBy(judged, (c) => c.ofLine)].map(([line, found]) => [line, found.map(write)]));
}
