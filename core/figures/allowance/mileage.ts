import type { DistanceUnit, Journey, MileageRate, Tier } from '../../documents/allowance.schema.ts';
import { holdsOn } from '../../numbers/isoDate.ts';
import { fromMinor, minorPerMajor } from '../../numbers/amount.ts';
import { decimalToFraction, fractionToDecimal } from '../../numbers/decimal.ts';
import { compare, fraction, minus, over, plus, times, ZERO, type Fraction } from '../../numbers/fraction.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';

/** Amounts are decimal strings of `currency`; distances are in the rate's unit. */
export interface MileageResult {
  currency: string;
  amount: string;
  /** What exceeds the tax-free rates, for payroll. */
  taxable: string;
  /** The part tax is computed on; null where the rate names none. */
  fuelPart: string | null;
  tiers: { distance: string; rate: string }[];
}

/** One mile in kilometres, exactly (international yard and pound agreement, 1959). */
const KM_PER_MILE = fraction(1609344n, 1000000n);

/**
 * The mileage of one journey: distance × rate by tiers on the cumulative distance of the tax year (a journey that crosses
 * a tier is cut at it) plus the passengers' supplement, rounded once. 12,000 miles at 0.45 to 10,000 and 0.25 beyond → 5000.00.
 * Null when no rate of the vehicle holds on the date.
 */
export function mileage(journey: Journey & { date: string }, rates: readonly MileageRate[]): MileageResult | null {
  const rate = rates.find((r) => r.vehicle === journey.vehicle && holdsOn(r, journey.date));
  if (!rate) return null;
  const distance = inUnit(decimalToFraction(journey.distance), journey.unit, rate.unit);
  const before = inUnit(decimalToFraction(journey.before ?? '0'), journey.unit, rate.unit);
  const pieces = cut(rate.tiers, before, distance);
  const supplement = times(
    times(distance, decimalToFraction(rate.passenger ?? '0')),
    fraction(BigInt(journey.passengers ?? 0)),
  );
  const amount = toMinor(plus(worth(pieces), supplement), rate.currency);
  const free = rate.taxFree
    ? toMinor(plus(worth(cut(rate.taxFree, before, distance)), supplement), rate.currency)
    : amount;
  return {
    currency: rate.currency,
    amount: fromMinor(amount, rate.currency),
    taxable: fromMinor(amount > free ? amount - free : 0n, rate.currency),
    fuelPart: rate.fuel
      ? fromMinor(toMinor(times(distance, decimalToFraction(rate.fuel)), rate.currency), rate.currency)
      : null,
    tiers: pieces.map((p) => ({ distance: fractionToDecimal(p.distance), rate: p.rate })),
  };
}

interface Piece {
  distance: Fraction;
  rate: string;
}

/** The distance from `before` to `before + distance` cut at the tiers' ends; pieces of nothing are left out. */
function cut(tiers: readonly Tier[], before: Fraction, distance: Fraction): Piece[] {
  const end = plus(before, distance);
  let at = before;
  const pieces: Piece[] = [];
  for (const tier of tiers) {
    const limit = tier.upTo === null ? end : smaller(decimalToFraction(tier.upTo), end);
    if (compare(limit, at) <= 0) continue;
    pieces.push({ distance: minus(limit, at), rate: tier.rate });
    at = limit;
  }
  return pieces;
}

const smaller = (a: Fraction, b: Fraction): Fraction => (compare(a, b) < 0 ? a : b);
const worth = (pieces: readonly Piece[]): Fraction =>
  pieces.reduce((a, p) => plus(a, times(p.distance, decimalToFraction(p.rate))), ZERO);
const toMinor = (value: Fraction, currency: string): bigint =>
  roundHalfAway(value.n * minorPerMajor(currency), value.d);

function inUnit(distance: Fraction, from: DistanceUnit, to: DistanceUnit): Fraction {
  if (from === to) return distance;
  return from === 'mile' ? times(distance, KM_PER_MILE) : over(distance, KM_PER_MILE);
}

/**
 * Distances added up in one unit, as a decimal cut at twelve places: what was driven in the tax year before a journey.
 * Example: 100 km and 10 miles in km → "116.09344".
 */
export function sumDistances(journeys: readonly Pick<Journey, 'distance' | 'unit'>[], unit: DistanceUnit): string {
  const all = journeys.map((j) => inUnit(decimalToFraction(j.distance), j.unit, unit));
  return fractionToDecimal(all.reduce(plus, ZERO));
}
