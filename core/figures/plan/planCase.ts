import type { Book, Case, Coding, Line } from '../../documents/case.schema.ts';
import type { PlannedEstimate, Trip } from '../../documents/plan.schema.ts';
import { fromMinor } from '../../numbers/amount.ts';
import type { EstimateValue } from './valueEstimate.ts';

/** A plan with what its estimates come to; amounts and totals are in the currency its traveller is paid in. */
export interface PlanFacts {
  number: string;
  entity: string;
  claimant: string;
  currency: string;
  coding: Coding;
  trip: Trip;
  estimates: readonly { estimate: PlannedEstimate; value: EstimateValue }[];
}

/**
 * A plan as a case, so that rates, coding and budgets are computed of it as of a claim: a line for each estimate, of
 * nothing while its amount is not known, on the first day of the trip, converted by the rate of the day `on` which it is estimated. Limits of
 * single purchases do not apply to it. Example: 2 × 120.00 EUR of lodging → one line of 240.00 EUR with that quantity.
 */
export function planCase(plan: PlanFacts, book: Book, on: string): Case {
  const { number, entity, claimant, currency, coding, estimates } = plan;
  return {
    format: 'ebbet-case/1',
    postingDate: on,
    claim: {
      number,
      version: 1,
      entity,
      claimant,
      currency,
      submittedOn: on,
      coding,
      lines: estimates.map(({ estimate, value }) => lineOf(plan, estimate, value, on)),
    },
    book: { ...book, entities: book.entities.map((e) => ({ ...e, rateDate: 'submitted' })), limits: [] },
  };
}

function lineOf({ currency, trip }: PlanFacts, estimate: PlannedEstimate, value: EstimateValue, on: string): Line {
  const { id, category, coding, description } = estimate;
  const { count, price, amount, stay } = value;
  const quantity = amount !== null && price && !stay ? { count: String(count), unitPrice: price.amount } : null;
  return {
    id,
    date: trip.from ?? on,
    category,
    paidBy: 'own',
    amount: amount ?? fromMinor(0n, currency),
    currency: amount === null || !price ? currency : price.currency,
    country: trip.country ?? null,
    description: description ?? null,
    quantity,
    ...(stay ? { stay } : {}),
    coding: coding ?? {},
  };
}
