import type { Db } from '../../platform/db/connect.ts';
import { NOT_CLAIMED } from '../../records/plans/plans.queries.ts';

const MOST = 30;
/** Records of a person that somebody made: their own, or those they prepared for them. */
export interface MadeBy {
  claimant: string;
  actor: string;
}
const madeBy = (table: string, { claimant, actor }: MadeBy) => ({
  sql: `${table}.claimant_id = :claimant and (${table}.claimant_id = :actor or ${table}.preparer_id = :actor)`,
  values: { claimant, actor },
});

/** Approved plans of which there is no claim, newest first. */
export function selectPlansToClaim(
  db: Db,
  by: MadeBy,
): Promise<{ number: string; revision: number; purpose: string }[]> {
  const { sql, values } = madeBy('p', by);
  return db('plans as p')
    .where('p.state', 'approved')
    .whereRaw(sql, values)
    .whereRaw(NOT_CLAIMED('p'))
    .orderBy('p.id', 'desc')
    .limit(MOST)
    .select('p.number', 'p.revision', 'p.purpose');
}

/** The newest claims, to be copied. */
export function selectClaimsToCopy(db: Db, by: MadeBy): Promise<{ number: string; purpose: string }[]> {
  const { sql, values } = madeBy('c', by);
  return db('claims as c').whereRaw(sql, values).orderBy('c.id', 'desc').limit(MOST).select('c.number', 'c.purpose');
}
