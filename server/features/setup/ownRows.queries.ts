import { BEFORE_POSTING } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';

/** Whether somebody owns a code of a dimension. */
export async function ownsCode(db: Db, person: string, code: Record<string, unknown>): Promise<boolean> {
  return (
    (await db('dimension_values')
      .where({ ...code, owner_id: person })
      .first('code')) !== undefined
  );
}

/** Whether a claim of somebody's that is not yet posted has a line in one of some currencies between two days, in a foreign one. */
export async function hasOpenLines(
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
