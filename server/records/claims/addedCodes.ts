import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import { chargedCodes } from '../../../core/routing/chargedCodes.ts';
import type { Db } from '../../platform/db/connect.ts';
import { today, type Clock } from '../../platform/ports/clock.ts';
import { askCodeOwners } from '../routing/askCodes.ts';
import { routedRecord } from '../routing/routeOf.ts';
import type { AssessedClaim } from './assessClaim.ts';
import type { LockedClaim } from './claimStore.ts';
import { selectSubmitted } from './claims.queries.ts';
import { routedClaim, routedKey } from './routedClaim.ts';

/** Codes that somebody answers for; what fund or kind of spending they take follows from them. */
const ASKED: readonly string[] = ['costCentre', 'project', 'grant'];

/** Asks the owners of codes that a claim is charged to now and was not when it was submitted; who is still asked. */
export async function chargedAfterwards(
  trx: Db,
  clock: Clock,
  { row, at }: LockedClaim,
  assessed: Pick<AssessedClaim, 'document' | 'assessment'>,
): Promise<string[]> {
  const submitted = await selectSubmitted<{ assessment: Assessment }>(trx, at);
  if (!submitted || row.state !== 'in review') return row.code_owners;
  const subject = routedClaim(row, assessed, today(clock));
  const record = await routedRecord(trx, subject);
  const dimensions = [...new Set(record.charged.map((c) => c.dimension))];
  const before = chargedCodes(submitted.assessment, dimensions, record.ledgerCurrency);
  const approved = new Set(before.map((c) => `${c.dimension} ${c.code}`));
  const owned = record.charged.filter((c) => c.owner !== null && ASKED.includes(c.dimension));
  const added = owned.filter((c) => !approved.has(`${c.dimension} ${c.code}`));
  if (added.length === 0 && row.code_owners.length === 0) return [];
  return askCodeOwners(trx, routedKey(row), record, added, clock.now());
}
