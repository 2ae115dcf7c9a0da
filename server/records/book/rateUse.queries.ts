import { addDays } from '../../../core/numbers/isoDate.ts';
import { BEFORE_POSTING } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';

/** A line takes the newest rate of its day or before; beyond these many days it is another's. */
const RATE_DAYS = 7;

/** Whether a claim of somebody's that is not yet posted may take a published rate. */
export const mayTakeRate = (
  db: Db,
  person: string,
  { from, to, date }: { from: string; to: string; date: string },
): Promise<boolean> => hasOpenLines(db, person, [from, to], { from: date, to: addDays(date, RATE_DAYS - 1) });

/** Whether a claim of somebody's that is not yet posted has a line in one of some currencies between two days, in a foreign one. */
async function hasOpenLines(
  db: Db,
  person: string,
  currencies: readonly string[],
  { from, to }: { from: string; to: string },
): Promise<boolean> {
  const line = await db('lines as l')
    .join('claims as c', (on) => on.on('c.id', 'l.claim_id').andOn('c.version', 'l.version'))
    .join('entities as e', 'e.id', 'c.entity_id')
    .where('c.claimant_id', person)
    .whereIn('c.state', [...BEFORE_POSTING])
    .whereIn('l.currency', [...currencies])
    .whereRaw('(l.currency <> e.currency or c.currency <> e.currency)')
    .whereBetween('l.date', [from, to])
    .first('l.id');
  return line !== undefined;
}
