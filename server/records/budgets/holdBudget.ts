import type { BudgetUse } from '../../../core/ledger/budgetUse.ts';
import type { Asked } from '../../platform/acts/acts.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { useOfBudget } from '../claims/usesOf.ts';
import { insertBudgetMovements, selectHeld, type BudgetMovement } from './budgets.queries.ts';

/** Whose use of budgets moves, to which stage, when. `stage: null` gives everything back. */
export interface Holding {
  source: { kind: BudgetMovement['source_kind']; id: string };
  stage: BudgetMovement['stage'] | null;
  at: Date;
}

/**
 * Makes what a record holds of the budgets exactly what is given, at one stage: what it held before is given back in the
 * same transaction, so it never counts twice. The caller holds the budgets' locks. Claims assessed by a budget that moved
 * are to be assessed again.
 */
export async function holdBudget(
  trx: Db,
  { source, stage, at }: Holding,
  uses: readonly BudgetUse[],
): Promise<Asked[]> {
  const held = await selectHeld(trx, source);
  const row = { source_kind: source.kind, source_id: source.id, at };
  const back = held.map((h) => ({ ...row, budget_id: h.budget_id, stage: h.stage, amount: -h.amount }));
  const taken = stage === null ? [] : uses.map((u) => ({ ...row, budget_id: u.id, stage, amount: u.amount }));
  await insertBudgetMovements(trx, [...back, ...taken]);
  const moved = new Set([...back, ...taken].map((m) => m.budget_id));
  return [...moved].map((id) => ({ name: 'assess-claims' as const, data: { key: useOfBudget(id) } }));
}
