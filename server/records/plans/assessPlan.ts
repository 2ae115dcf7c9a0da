import { assess } from '../../../core/assess/assess.ts';
import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Plan } from '../../../core/documents/case.schema.ts';
import type { PlannedEstimate, Trip } from '../../../core/documents/plan.schema.ts';
import { joinBook } from '../../../core/documents/splitBook.ts';
import { explainLine } from '../../../core/explain/explainLine.ts';
import { missingOfPlan } from '../../../core/figures/plan/missingOfPlan.ts';
import { planCase } from '../../../core/figures/plan/planCase.ts';
import { valueEstimate } from '../../../core/figures/plan/valueEstimate.ts';
import { budgetUse, type BudgetUse } from '../../../core/ledger/budgetUse.ts';
import { fromMinor, sumKnown, toMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import { currentBook } from '../book/sharedBook.ts';
import { validCase } from '../claims/assessClaim.ts';
import { selectOwnBook } from '../claims/ownBook.ts';
import type { KeptPlan } from './plans.types.ts';
import { selectEstimates, type EstimateRow, type PlanRow } from './plans.queries.ts';

export interface AssessedPlan {
  kept: KeptPlan;
  total: bigint | null;
  estimates: EstimateRow[];
  uses: BudgetUse[];
  assessment: Pick<Assessment, 'lines'>;
  ledgerCurrency: string;
}

export const tripOf = (row: PlanRow): Trip => ({
  country: row.country,
  place: row.place,
  from: row.trip_from,
  to: row.trip_to,
  privateDays: row.private_days,
});

export const plannedOf = (row: EstimateRow): PlannedEstimate => ({
  id: row.id,
  category: row.category,
  description: row.description,
  per: row.per,
  count: row.count,
  price: row.price === null ? null : { amount: fromMinor(row.price, row.currency!), currency: row.currency! },
  coding: row.coding,
});

/**
 * Everything that can be computed of a plan on a day: what each estimate comes to, in the plan's currency by the rates of
 * that day, what is missing, what chart and budgets say. What is left of budgets is without what the plan itself reserves.
 */
export async function assessPlan(db: Db, row: PlanRow, on: string): Promise<AssessedPlan> {
  const estimates = await selectEstimates(db, row.id);
  const { content: shared } = await currentBook(db, row.entity_id);
  const trip = tripOf(row);
  const valued = estimates
    .map(plannedOf)
    .map((estimate) => ({ estimate, value: valueEstimate(shared, trip, estimate) }));
  const { number, entity_id: entity, claimant_id: claimant, currency, coding } = row;
  const facts = { number, entity, claimant, currency, coding, trip, estimates: valued };
  const { claim } = planCase(facts, joinBook(shared, NOTHING), on);
  const apart = [{ kind: 'plan', id: number }];
  const { own, budgets } = await selectOwnBook(db, { claim, shared, postingDate: on, apart });
  const document = validCase(planCase(facts, joinBook(shared, own), on));
  const { lines, findings } = assess(document);
  const isKnown = new Map(valued.map(({ estimate, value }) => [estimate.id, value.amount !== null]));
  const amounts = Object.fromEntries(lines.map((l) => [l.id, isKnown.get(l.id) ? l.claimAmount : null]));
  const minor = estimates.map(({ id }) => (amounts[id] == null ? null : toMinor(amounts[id], currency)));
  return {
    estimates,
    assessment: { lines },
    ledgerCurrency: shared.entities[0]!.currency,
    total: sumKnown(minor),
    uses: budgetUse({ lines }, document.claim, budgets, shared.entities[0]!.currency),
    kept: {
      on,
      values: Object.fromEntries(valued.map(({ estimate, value }) => [estimate.id, value])),
      amounts,
      missing: missingOfPlan(trip, valued),
      findings,
      explained: Object.fromEntries(
        lines
          .filter(({ id }) => isKnown.get(id))
          .map(({ id }) => [id, explainLine(document, id)!.filter((e) => OF_AMOUNT.has(e.figure))]),
      ),
    },
  };
}

const NOTHING = { rates: [], people: [], advances: [], left: [] };
const OF_AMOUNT = new Set(['amount', 'claimAmount']);

/** Assesses a plan and gives the columns it is kept by. */
export async function assessPlanRow(trx: Db, row: PlanRow, on: string) {
  const assessed = await assessPlan(trx, row, on);
  return { assessed, columns: { assessed: assessed.kept, total: assessed.total } };
}

/** A plan as a claim names it: what each of its estimates was when it was approved. */
export function frozenPlan(row: PlanRow, estimates: readonly EstimateRow[]): Plan {
  const { amounts } = row.assessed!;
  return {
    number: row.number,
    approvedOn: row.approved_on!,
    estimates: estimates.map(({ id, category }) => ({ id, amount: amounts[id]!, category })),
  };
}
