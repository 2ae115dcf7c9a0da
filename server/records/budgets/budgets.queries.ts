import type { Db } from '../../platform/db/connect.ts';

/** Holds off others who clear or post against the same budgets until the transaction ends. */
export async function lockBudgets(trx: Db, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await trx.raw('select lock_budgets(cast(? as bigint[]))', [[...ids]] as never);
}

export interface BudgetMovement {
  budget_id: string;
  stage: 'reserved' | 'cleared' | 'posted';
  amount: bigint;
  source_kind: 'claim' | 'plan' | 'advance';
  source_id: string;
  at: Date;
}
/** Adds movements; the database adds them to what is reserved, cleared or posted of their budgets. */
export async function insertBudgetMovements(trx: Db, movements: readonly BudgetMovement[]): Promise<void> {
  const moving = movements.filter((m) => m.amount !== 0n);
  if (moving.length > 0) await trx('budget_movements').insert(moving);
}

/** What a record has of each budget at each stage; stages that came back to 0 are left out. */
export async function selectHeld(
  trx: Db,
  source: { kind: string; id: string },
): Promise<{ budget_id: string; stage: BudgetMovement['stage']; amount: bigint }[]> {
  const { rows } = await trx.raw(
    `select budget_id::text, stage, sum(amount)::bigint as amount from budget_movements
     where source_kind = ? and source_id = ? group by 1, 2 having sum(amount) <> 0 order by 1, 2`,
    [source.kind, source.id],
  );
  return rows;
}
