import { fromMinor } from '../../../core/numbers/amount.ts';
import type { RoutedKey } from '../routing/routing.queries.ts';
import type { RoutedSubject } from '../routing/routeOf.ts';
import type { AssessedPlan } from './assessPlan.ts';
import type { PlanRow } from './plans.queries.ts';

/** Under what the decisions about a plan are kept. */
export const routedPlanKey = ({ number }: Pick<PlanRow, 'number'>): RoutedKey => ({
  ...{ kind: 'plan', id: number, version: 1 },
});

/** An assessed plan as routes look at it on a day: what it is estimated at, and the codes it would be charged to. */
export function routedPlan(
  row: PlanRow,
  { total, estimates, assessment, ledgerCurrency }: AssessedPlan,
  on: string,
): RoutedSubject {
  return {
    ...{ kind: 'plan', on, entity: row.entity_id, claimant: row.claimant_id, preparer: row.preparer_id },
    ...{ currency: row.currency, ledgerCurrency, assessment },
    total: total === null ? null : fromMinor(total, row.currency),
    categories: [...new Set(estimates.map((e) => e.category))],
  };
}
