import type { Finding } from '../../../core/documents/finding.ts';
import type { Asked } from '../../platform/acts/acts.types.ts';
import type { Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { lockBudgets, selectHeld } from '../budgets/budgets.queries.ts';
import { holdBudget } from '../budgets/holdBudget.ts';
import { actOnPlan } from './planStore.ts';
import { assessPlan } from './assessPlan.ts';
import { selectPlan, type PlanRow } from './plans.queries.ts';

const sourceOf = (number: string) => ({ kind: 'plan' as const, id: number });

/** The budgets a plan reserves, to be locked with those of a claim that takes its place. */
export const budgetsOfPlan = async (db: Db, number: string | undefined): Promise<string[]> =>
  number === undefined ? [] : (await selectHeld(db, sourceOf(number))).map((held) => held.budget_id);

/** Gives back what a plan reserves: it ended, or its claim was cleared and counts by itself. */
export async function releasePlan({ clock }: Pick<Context, 'clock'>, trx: Db, number: string): Promise<Asked[]> {
  await lockBudgets(trx, await budgetsOfPlan(trx, number));
  return holdBudget(trx, { source: sourceOf(number), stage: null, at: clock.now() }, []);
}

/** Reserves what a plan charges to budgets; with what chart and budgets say of it once the budgets are locked. */
export async function reservePlan(
  { clock }: Pick<Context, 'clock'>,
  trx: Db,
  row: PlanRow,
): Promise<{ jobs: Asked[]; findings: Finding[] }> {
  const { on } = row.assessed!;
  const { uses } = await assessPlan(trx, row, on);
  await lockBudgets(
    trx,
    uses.map((u) => u.id),
  );
  const { kept } = await assessPlan(trx, row, on);
  const jobs = await holdBudget(trx, { source: sourceOf(row.number), stage: 'reserved', at: clock.now() }, uses);
  return { jobs, findings: kept.findings };
}

/** Reserves once more what an approved plan charges, when its claim no longer counts; nothing of one that has ended. */
export async function reserveAgain(context: Pick<Context, 'clock'>, trx: Db, number: string): Promise<Asked[]> {
  const row = await selectPlan(trx, number);
  return row?.state === 'approved' ? (await reservePlan(context, trx, row)).jobs : [];
}

/** A plan whose claim was posted is used up, whatever it reserved. */
export async function useUpPlan(context: Context, trx: Db, number: string): Promise<Asked[]> {
  const row = await selectPlan(trx, number);
  if (row?.state !== 'approved') return [];
  return actOnPlan(context, trx, { act: 'useUp', plan: { number, revision: null }, actor: null }, async () => ({
    result: await releasePlan(context, trx, number),
  }));
}

/** A plan whose claim is reversed is not used up any more, and reserves again what it charges. */
export async function takeUpPlan(context: Context, trx: Db, number: string): Promise<Asked[]> {
  const row = await selectPlan(trx, number);
  if (row?.state !== 'used up') return [];
  return actOnPlan(context, trx, { act: 'takeUp', plan: { number, revision: null }, actor: null }, async (plan) => ({
    result: (await reservePlan(context, trx, plan.row)).jobs,
  }));
}
