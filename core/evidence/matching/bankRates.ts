import { daysBetween } from '../../numbers/isoDate.ts';
import { minorUnits } from '../../numbers/minorUnits.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';

/** A charge of which the bank told both amounts, in minor units of their currencies. */
export interface Settled {
  amount: bigint;
  currency: string;
  settledAmount: bigint;
  settledCurrency: string;
  /** ISO 8601. */
  date: string;
}

/** A rate of the bank's own is no guide for a day further away. */
const MOST_DAYS = 14;

/**
 * What an amount comes to in another currency by what the bank took for the charge of that pair of currencies that is nearest in
 * time (the later of two), rounded half away from zero; null where none is within fourteen days. For finding what belongs
 * together: nothing is accounted for by it. Example: the bank took 9.20 EUR for 10.00 USD; 20.00 USD → 18.40 EUR.
 */
export function byBankRate(
  settled: readonly Settled[],
  { amount, currency, date }: { amount: bigint; currency: string; date: string },
  to: string,
): { amount: bigint; currency: string; bankOn: string } | null {
  if (minorUnits(currency) === null || minorUnits(to) === null) return null;
  const near = settled
    .filter((s) => s.currency === currency && s.settledCurrency === to && s.amount !== 0n && s.settledAmount !== 0n)
    .map((s) => ({ ...s, far: Math.abs(daysBetween(s.date, date)) }))
    .filter(({ far }) => far <= MOST_DAYS)
    .sort((a, b) => a.far - b.far || b.date.localeCompare(a.date))[0];
  if (!near) return null;
  const product = amount * near.settledAmount;
  const sign = near.amount < 0n ? -1n : 1n;
  return { amount: roundHalfAway(product * sign, near.amount * sign), currency: to, bankOn: near.date };
}
