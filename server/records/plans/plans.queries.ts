import type { Coding } from '../../../core/documents/case.schema.ts';
import type { Per, PlanTemplate } from '../../../core/documents/plan.schema.ts';
import { holdsOn } from '../../../core/numbers/isoDate.ts';
import type { PlanState } from '../../../core/workflow/lifecycles/planned.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { KeptPlan } from './plans.types.ts';

export interface PlanRow {
  id: bigint;
  number: string;
  revision: number;
  state: PlanState;
  entity_id: string;
  claimant_id: string;
  preparer_id: string;
  /** Who decides about it now, everybody who is or was asked to, who decided last and which revision that made. */
  deciders: string[];
  approvers: string[];
  decided_by: string | null;
  decided_in: number | null;
  currency: string;
  purpose: string;
  kind: string;
  country: string | null;
  place: string | null;
  trip_from: string | null;
  trip_to: string | null;
  private_days: string[];
  coding: Coding;
  /** The highest number an estimate was ever given. */
  last_estimate: number;
  submitted_on: string | null;
  approved_on: string | null;
  /** In the plan's currency; null while an estimate is not known. */
  total: bigint | null;
  assessed: KeptPlan | null;
}
export interface EstimateRow {
  id: string;
  position: number;
  category: string;
  description: string | null;
  per: Per;
  count: number | null;
  price: bigint | null;
  currency: string | null;
  coding: Coding;
}

export const selectPlan = (db: Db, number: string): Promise<PlanRow | undefined> =>
  db<PlanRow>('plans').where({ number }).first();

/** The plan, locked until the transaction ends. */
export const lockPlanRow = (trx: Db, number: string): Promise<PlanRow | undefined> =>
  trx<PlanRow>('plans').where({ number }).forUpdate().first();

const JSON_COLUMNS = ['private_days', 'coding', 'assessed'] as const;
const written = (row: Record<string, unknown>) =>
  Object.fromEntries(
    Object.entries(row).map(([column, value]) => [
      column,
      JSON_COLUMNS.some((name) => name === column) && value !== null ? JSON.stringify(value) : value,
    ]),
  );

export async function updatePlan(trx: Db, id: bigint, changes: Record<string, unknown>): Promise<void> {
  await trx('plans').where({ id }).update(written(changes));
}

export type NewPlan = Omit<
  PlanRow,
  | 'id'
  | 'number'
  | 'revision'
  | 'state'
  | 'last_estimate'
  | 'submitted_on'
  | 'approved_on'
  | 'total'
  | 'assessed'
  | 'deciders'
  | 'approvers'
  | 'decided_by'
  | 'decided_in'
>;
/** A new plan with the next number; numbers may be skipped, never used twice. */
export async function insertPlan(trx: Db, plan: NewPlan): Promise<PlanRow> {
  const number = trx.raw(`'T-' || nextval('plan_numbers')`);
  const [row] = await trx('plans')
    .insert({ ...written({ ...plan }), number, state: 'draft' })
    .returning('*');
  return row;
}

export const selectEstimates = (db: Db, planId: bigint): Promise<EstimateRow[]> =>
  db('plan_estimates')
    .where({ plan_id: planId })
    .orderBy('position')
    .select('id', 'position', 'category', 'description', 'per', 'count', 'price', 'currency', 'coding');

export async function insertEstimates(trx: Db, planId: bigint, rows: readonly EstimateRow[]): Promise<void> {
  if (rows.length === 0) return;
  await trx('plan_estimates').insert(rows.map((row) => ({ ...written({ ...row }), plan_id: planId })));
}

export async function updateEstimate(
  trx: Db,
  planId: bigint,
  id: string,
  changes: Partial<EstimateRow>,
): Promise<void> {
  if (Object.keys(changes).length > 0)
    await trx('plan_estimates').where({ plan_id: planId, id }).update(written(changes));
}

export async function deleteEstimate(trx: Db, planId: bigint, id: string): Promise<void> {
  await trx('plan_estimates').where({ plan_id: planId, id }).delete();
}

/** The templates that hold on a day, by what they are called. */
export async function selectTemplates(db: Db, on: string): Promise<(PlanTemplate & { id: string })[]> {
  const rows = await db('plan_templates').orderBy('id');
  return rows
    .filter((row) => holdsOn({ from: row.valid_from, to: row.valid_to }, on))
    .map((row) => ({ ...(row.rule as PlanTemplate), id: row.id as string }));
}

/** SQL for the claim that a plan became: of one plan there is one at a time, those that ended aside. */
const BECAME = (number: string) =>
  `c.plan is not null and c.plan ->> 'number' = ${number} and c.state not in ('declined', 'withdrawn')`;
/** SQL for a plan, by its table's name, of which there is no claim. */
export const NOT_CLAIMED = (plan: string) => `not exists (select 1 from claims c where ${BECAME(`${plan}.number`)})`;

/** The number of the claim that a plan became; null while it did not, or when that claim was withdrawn or declined. */
export async function selectClaimOfPlan(db: Db, number: string): Promise<string | null> {
  const row = await db('claims as c').whereRaw(BECAME('?'), [number]).first('c.number');
  return row?.number ?? null;
}
