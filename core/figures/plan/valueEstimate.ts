import type { Book } from '../../documents/case.schema.ts';
import type { StayDay } from '../../documents/allowance.schema.ts';
import type { Per, PlannedEstimate, Trip } from '../../documents/plan.schema.ts';
import type { Limit, LimitOf } from '../../documents/rules.schema.ts';
import { fromMinor, sumKnown, toMinor } from '../../numbers/amount.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { compare } from '../../numbers/fraction.ts';
import { addDays, daysBetween, holdsOn } from '../../numbers/isoDate.ts';
import { dailyAllowance } from '../allowance/dailyAllowance.ts';
import { quantityAmount } from '../computed/computedAmounts.ts';

/** What an estimate comes to and why. Amounts are decimal strings of `price.currency`; what is not known is null. */
export interface EstimateValue {
  count: number | null;
  price: { amount: string; currency: string } | null;
  amount: string | null;
  /** What the limits of the country would allow for one, whatever was typed. */
  suggested: Suggestion | null;
  /** The days of a daily allowance of which nothing was typed: first and last are less than count × price. */
  stay?: StayDay[];
}
export interface Suggestion {
  amount: string;
  currency: string;
  /** "limit lodging-pt" or "daily allowance of PT". */
  source: string;
}
type Rules = Pick<Book, 'limits' | 'allowanceRates'>;

/**
 * An estimate's count × price: what was typed goes before the days or nights of the trip and what the limits of its
 * country allow on its first day; of a daily allowance first and last day are less. Example: lodging per night, 2 to 6 March, one day of them private, limit 120.00 EUR →
 * 3 × 120.00 = 360.00 EUR.
 */
export function valueEstimate(rules: Rules, trip: Trip, estimate: PlannedEstimate): EstimateValue {
  const count = estimate.count ?? countOf(trip, estimate.per);
  const suggested = suggestPrice(rules, trip, estimate);
  const byDays = estimate.count == null && !estimate.price && suggested && valueOfStay(rules, trip, estimate);
  if (byDays) return { count, price: pricedAs(suggested), suggested, ...byDays };
  const price = estimate.price ?? (suggested && pricedAs(suggested));
  const known = count !== null && price !== null;
  const amount = known ? quantityAmount({ count: String(count), unitPrice: price.amount }, price.currency) : null;
  return { count, price, amount, suggested };
}

const pricedAs = ({ amount, currency }: Suggestion) => ({ amount, currency });

/** What the daily allowances of a trip's days come to (rule 28), first and last day less; null where that cannot be told. */
function valueOfStay(
  { allowanceRates }: Rules,
  { country, place, from, to, privateDays }: Trip,
  { per }: PlannedEstimate,
): { amount: string; stay: StayDay[] } | null {
  if (per !== 'allowance' || !country || !from || !to || to < from) return null;
  const apart = new Set(privateDays ?? []);
  const stay = Array.from({ length: daysBetween(from, to) + 1 }, (_, i): StayDay => {
    const date = addDays(from, i);
    // nobody knows yet how many hours they will be away: a band takes the whole day
    const edge = date === from || date === to ? { edge: true, hours: WHOLE_DAY } : {};
    return { date, country, ...(place ? { place } : {}), ...edge, ...(apart.has(date) ? { private: true } : {}) };
  });
  const { days } = dailyAllowance(stay, allowanceRates ?? []);
  const currency = days[0]!.currency;
  const sum = sumKnown(days.map((d) => (d.currency && d.currency === currency ? toMinor(d.amount!, currency) : null)));
  return sum === null ? null : { amount: fromMinor(sum, currency!), stay };
}
const WHOLE_DAY = 24;

/**
 * How many days or nights a trip has, private ones left out; a night is the one that follows its day, and the last day has
 * none. Once for a trip; null while its days are not known.
 */
export function countOf({ from, to, privateDays }: Trip, per: Per): number | null {
  if (per === 'trip') return 1;
  if (!from || !to || to < from) return null;
  const last = per === 'night' ? addDays(to, -1) : to;
  const apart = new Set((privateDays ?? []).filter((day) => day >= from && day <= last));
  return daysBetween(from, last) + 1 - apart.size;
}

/** What one may cost there on the first day of the trip: the daily allowance, or the lowest cap of the policy. */
function suggestPrice(rules: Rules, trip: Trip, { category, per }: PlannedEstimate): Suggestion | null {
  const { country, from } = trip;
  if (!country || !from) return null;
  if (per === 'allowance') return allowanceOf(rules, trip);
  const caps = (rules.limits ?? []).filter((limit): limit is LimitOf<'cap'> => applies(limit, per, category, trip));
  const comparable = caps.filter((c) => c.cap.currency === caps[0]!.cap.currency);
  if (comparable.length === 0) return null;
  const lowest = comparable.reduce((a, b) => (isLess(b.cap.amount, a.cap.amount) ? b : a));
  return { ...lowest.cap, source: `limit ${lowest.id}` };
}

const isLess = (a: string, b: string): boolean => compare(decimalToFraction(a), decimalToFraction(b)) < 0;

/** A place's own allowance goes before its country's, as for the days of a stay. */
function allowanceOf({ allowanceRates }: Rules, { country, place, from }: Trip): Suggestion | null {
  const held = (allowanceRates ?? []).filter((r) => r.country === country && holdsOn(r, from!));
  const rate = held.find((r) => r.place && r.place === place) ?? held.find((r) => !r.place);
  if (!rate) return null;
  return { amount: rate.full, currency: rate.currency, source: `daily allowance of ${rate.place ?? country}` };
}

function applies(limit: Limit, per: Per, category: string, { country, from }: Trip): boolean {
  return (
    limit.kind === 'cap'
    && limit.per === per
    && holdsOn(limit, from!)
    && (!limit.categories || limit.categories.includes(category))
    && (!limit.countries || limit.countries.includes(country!))
  );
}
