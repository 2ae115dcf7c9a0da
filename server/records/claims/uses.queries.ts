import type { Db } from '../../platform/db/connect.ts';

/** Ids of the budgets a claim was last assessed by. */
export async function selectUsedBudgets(db: Db, claimId: bigint): Promise<string[]> {
  const keys: string[] = await db('assessment_uses')
    .where({ claim_id: claimId })
    .whereLike('key', 'budget:%')
    .pluck('key');
  return keys.map((key) => key.slice('budget:'.length));
}
