import type { Db } from '../../platform/db/connect.ts';
import type { Clock } from '../../platform/ports/clock.ts';
import { proposedPostingDate } from '../book/postingDate.ts';
import { chargedAfterwards } from './addedCodes.ts';
import { assessClaim, keepAssessment, standingOf } from './assessClaim.ts';
import type { Subject } from './assessed.ts';
import type { LockedClaim } from './claimStore.ts';

/**
 * Assesses a submitted claim as it now is and keeps it; owners of codes it was given since it was approved are asked. The
 * columns of its row.
 */
export async function assessKept(clock: Clock, trx: Db, claim: LockedClaim, subject: Subject) {
  const { row, revision } = claim;
  const date = await proposedPostingDate(trx, clock, row.entity_id);
  const assessed = await assessClaim(trx, row, subject, date);
  const columns = await keepAssessment(trx, row, assessed, { clock, revision, standing: standingOf(row, clock) });
  return { ...columns, code_owners: await chargedAfterwards(trx, clock, claim, assessed) };
}
