import type { PlannedEstimate, Trip } from '../../documents/plan.schema.ts';
import type { EstimateValue } from './valueEstimate.ts';

/** Something a plan still wants: where it is to be said, and what to do. `estimate` is null for the plan itself. */
export interface Missing {
  estimate: string | null;
  field: 'country' | 'from' | 'to' | 'privateDays' | 'estimates' | 'count' | 'price';
  says: string;
}

/**
 * What a plan wants before it can be decided about. Example: a meal by daily allowance without the days of the trip →
 * the first and last day of the plan, and the days of that estimate.
 */
export function missingOfPlan(
  trip: Trip,
  estimates: readonly { estimate: PlannedEstimate; value: EstimateValue }[],
): Missing[] {
  return [
    ...ofTrip(trip, estimates.length),
    ...estimates.flatMap(({ estimate, value }) => ofEstimate(estimate, value)),
  ];
}

function ofTrip({ country, from, to, privateDays }: Trip, estimates: number): Missing[] {
  const of = (field: Missing['field'], says: string): Missing => ({ estimate: null, field, says });
  const outside = (privateDays ?? []).filter((day) => (from && day < from) || (to && day > to));
  return [
    ...(country ? [] : [of('country', 'Say in which country it is.')]),
    ...(from ? [] : [of('from', 'Say on which day it begins.')]),
    ...(to ? [] : [of('to', 'Say on which day it ends.')]),
    ...(outside.length > 0 ? [of('privateDays', `${outside.join(', ')}: not a day of this trip.`)] : []),
    ...(estimates > 0 ? [] : [of('estimates', 'Estimate what it will cost.')]),
  ];
}

function ofEstimate({ id, per }: PlannedEstimate, { count, price }: EstimateValue): Missing[] {
  const of = (field: Missing['field'], says: string): Missing => ({ estimate: id, field, says });
  return [
    ...(count === null ? [of('count', `Say for how many ${per === 'night' ? 'nights' : 'days'}.`)] : []),
    ...(price === null ? [of('price', 'Say what one costs; no limit gives a price.')] : []),
  ];
}
