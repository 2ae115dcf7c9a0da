import type { Db } from '../../platform/db/connect.ts';
import { today, type Clock } from '../../platform/ports/clock.ts';
import { askCodeOwners, askInstead } from '../routing/askCodes.ts';
import { routedRecord } from '../routing/routeOf.ts';
import { raisedOf } from './approved.ts';
import type { AssessedClaim } from './assessed.ts';
import type { LockedClaim } from './claimStore.ts';
import { routedClaim, routedKey } from './routedClaim.ts';

/** Asks the owners of codes that a claim is charged to now, and was not, or by less, when it was approved; who is still asked. */
export async function chargedAfterwards(
  trx: Db,
  clock: Clock,
  { row, at }: LockedClaim,
  assessed: AssessedClaim,
): Promise<string[]> {
  if (row.state !== 'in review') return row.code_owners;
  const raised = new Set((await raisedOf(trx, row, at, assessed)).codes.map((c) => `${c.dimension} ${c.code}`));
  if (raised.size === 0 && row.code_owners.length === 0) return [];
  const record = await routedRecord(trx, routedClaim(row, assessed, today(clock, row.time_zone)));
  const added = record.charged.filter((c) => c.owner !== null && raised.has(`${c.dimension} ${c.code}`));
  return askCodeOwners(trx, routedKey(row), record, added, clock.now());
}

/**
 * Asks anew who answers for the codes a claim in review waits for, where those asked cannot answer any more; null where they are
 * the same people.
 */
export async function askOwnersAnew(
  trx: Db,
  clock: Clock,
  { row }: LockedClaim,
  kept: Pick<AssessedClaim, 'document' | 'assessment'>,
): Promise<{ code_owners: string[] } | null> {
  const record = await routedRecord(trx, routedClaim(row, kept, today(clock, row.time_zone)));
  const owners = await askInstead(trx, routedKey(row), record, clock.now());
  const same = owners.length === row.code_owners.length && owners.every((id) => row.code_owners.includes(id));
  return same ? null : { code_owners: owners };
}
