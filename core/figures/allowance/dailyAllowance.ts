import type { AllowanceRate, MealReduction, StayDay } from '../../documents/allowance.schema.ts';
import { holdsOn } from '../../numbers/isoDate.ts';
import { fromMinor, minorPerMajor, toMinor } from '../../numbers/amount.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { compare, fraction, minus, times, ZERO, type Fraction } from '../../numbers/fraction.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';

/** Amounts are decimal strings; a day without a rate has null. */
export interface AllowanceResult {
  days: { date: string; currency: string | null; amount: string | null; taxable: string | null }[];
}

/**
 * The allowance of each day: the full rate, reduced on the first and last day, less each meal provided, never below zero,
 * rounded once a day; nothing on private days. A place's own rate goes before its country's.
 * Three days at 68 with 75 % at the edges → 51.00, 68.00, 51.00; lunch (19) provided on the middle day → 49.00.
 */
export function dailyAllowance(days: readonly StayDay[], rates: readonly AllowanceRate[]): AllowanceResult {
  return { days: days.map((day) => allowanceOf(day, rateOf(day, rates))) };
}

function rateOf(day: StayDay, rates: readonly AllowanceRate[]): AllowanceRate | undefined {
  const held = rates.filter((r) => r.country === day.country && holdsOn(r, day.date));
  return held.find((r) => r.place && r.place === day.place) ?? held.find((r) => !r.place);
}

function allowanceOf(day: StayDay, rate: AllowanceRate | undefined) {
  if (!rate) return { date: day.date, currency: null, amount: null, taxable: null };
  const amount = day.private ? 0n : dayAmount(day, rate, rate.full);
  const free = rate.taxFree == null || day.private ? amount : dayAmount(day, rate, rate.taxFree);
  const write = (minor: bigint) => fromMinor(minor, rate.currency);
  return {
    date: day.date,
    currency: rate.currency,
    amount: write(amount),
    taxable: write(amount > free ? amount - free : 0n),
  };
}

/** Minor units of one day. The reduction for a meal in percent is of the full day's rate, even on the first and last day. */
function dayAmount(day: StayDay, rate: AllowanceRate, fullRate: string): bigint {
  const full = fraction(toMinor(fullRate, rate.currency));
  const share = day.edge ? times(full, hundredth(edgePercent(day, rate))) : full;
  const taken = (day.provided ?? []).reduce(
    (a, meal) => minus(a, mealWorth(rate.meals?.[meal], full, rate.currency)),
    share,
  );
  return compare(taken, ZERO) < 0 ? 0n : roundHalfAway(taken.n, taken.d);
}

function edgePercent(day: StayDay, rate: AllowanceRate): string {
  if (!rate.bands) return rate.edge ?? '100';
  const reached = rate.bands.filter((band) => (day.hours ?? 0) >= band.hours).sort((a, b) => b.hours - a.hours);
  return reached[0]?.percent ?? '0';
}

function mealWorth(reduction: MealReduction | undefined, full: Fraction, currency: string): Fraction {
  if (!reduction) return ZERO;
  if ('percent' in reduction) return times(full, hundredth(reduction.percent));
  return times(decimalToFraction(reduction.amount), fraction(minorPerMajor(currency)));
}

const hundredth = (percent: string): Fraction => times(decimalToFraction(percent), fraction(1n, 100n));
