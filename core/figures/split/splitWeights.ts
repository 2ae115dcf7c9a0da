import type { Split } from '../../documents/case.schema.ts';
import { fromMinor, magnitude, readAmount, signOf } from '../../numbers/amount.ts';
import { decimalToFraction, fractionToDecimal, isDecimal } from '../../numbers/decimal.ts';
import { compare, fraction, minus, plus, ZERO, type Fraction } from '../../numbers/fraction.ts';

/** Integer weights for `apportion`, or why the split does not hold and by how much (in percent or in the line's currency). */
export type SplitWeights =
  { ok: true; weights: bigint[] } | { ok: false; problem: SplitProblem; difference: string | null };
export type SplitProblem = 'no-shares' | 'rest' | 'value' | 'negative' | 'sign' | 'sum' | 'all-zero';

const HUNDRED = fraction(100n);
const wrong = (problem: SplitProblem, difference: string | null = null): SplitWeights => ({
  ok: false,
  problem,
  difference,
});

/**
 * The weights of a split of `gross` (minor units of `currency`).
 * percent: values sum to 100, a `rest` takes what is missing · amount: values sum to the gross and carry its sign ·
 * weight: at least one above 0 · equal: values are not looked at.
 * Percent 50 and rest → 1/2 and 1/2; amounts 60.00 and 30.00 of 100.00 → "sum".
 */
export function splitWeights(split: Split, gross: bigint, currency: string): SplitWeights {
  const values = split.shares.map((share) => share.value ?? null);
  if (values.length === 0) return wrong('no-shares');
  const rests = values.filter((v) => v === 'rest').length;
  if (rests > 1 || (rests > 0 && (split.by === 'weight' || split.by === 'equal'))) return wrong('rest');
  switch (split.by) {
    case 'equal':
      return { ok: true, weights: values.map(() => 1n) };
    case 'weight':
      return byWeight(values);
    case 'percent':
      return byPercent(values);
    case 'amount':
      return byAmount(values, gross, currency);
    default:
      return split.by satisfies never;
  }
}

function byWeight(values: (string | null)[]): SplitWeights {
  const weights = readDecimals(values);
  if (!weights) return wrong('value');
  if (weights.some((w) => w!.n < 0n)) return wrong('negative');
  if (weights.every((w) => w!.n === 0n)) return wrong('all-zero');
  return { ok: true, weights: toIntegers(weights as Fraction[]) };
}

function byPercent(values: (string | null)[]): SplitWeights {
  const given = readDecimals(values);
  if (!given) return wrong('value');
  if (given.some((p) => p && p.n < 0n)) return wrong('negative');
  const sum = given.reduce<Fraction>((a, p) => (p ? plus(a, p) : a), ZERO);
  const left = minus(HUNDRED, sum);
  const open = given.includes(null);
  const order = compare(left, ZERO);
  if (open ? order < 0 : order !== 0) return wrong('sum', fractionToDecimal(left));
  return { ok: true, weights: toIntegers(given.map((p) => p ?? left)) };
}

function byAmount(values: (string | null)[], gross: bigint, currency: string): SplitWeights {
  const given: (bigint | null)[] = [];
  for (const value of values) {
    const minor = value === 'rest' ? null : readAmount(value ?? '', currency);
    if (minor === null && value !== 'rest') return wrong('value');
    given.push(minor);
  }
  const sum = given.reduce<bigint>((a, v) => a + (v ?? 0n), 0n);
  const left = gross - sum;
  if (given.some((v) => v !== null && v !== 0n && signOf(v) !== signOf(gross)))
    return wrong('sign', fromMinor(left, currency));
  const beyond = left !== 0n && signOf(left) !== signOf(gross);
  if (given.includes(null) ? beyond : left !== 0n) return wrong('sum', fromMinor(left, currency));
  return { ok: true, weights: given.map((v) => magnitude(v ?? left)) };
}

/** The decimals of the values, null for the one `rest`; null altogether when a value is missing or no number. */
function readDecimals(values: (string | null)[]): (Fraction | null)[] | null {
  const read: (Fraction | null)[] = [];
  for (const value of values) {
    if (value !== 'rest' && (value === null || !isDecimal(value))) return null;
    read.push(value === 'rest' ? null : decimalToFraction(value));
  }
  return read;
}

/** The same proportions as integers: every value over one common power of ten. */
function toIntegers(values: Fraction[]): bigint[] {
  const common = values.reduce((d, v) => (v.d > d ? v.d : d), 1n);
  return values.map((v) => (v.n * common) / v.d);
}
