/**
 * Exact fractions of integers. Every figure is kept as one fraction and rounded once, at its end;
 * nothing here is a floating-point number. The denominator is always positive.
 */
export interface Fraction {
  readonly n: bigint;
  readonly d: bigint;
}

export const ONE: Fraction = { n: 1n, d: 1n };
export const ZERO: Fraction = { n: 0n, d: 1n };

/** n/d with the sign carried by the numerator. A zero denominator is a programming error. */
export function fraction(n: bigint, d: bigint = 1n): Fraction {
  if (d === 0n) throw new RangeError('a fraction cannot have the denominator 0');
  return d < 0n ? { n: -n, d: -d } : { n, d };
}

export const times = (a: Fraction, b: Fraction): Fraction => ({ n: a.n * b.n, d: a.d * b.d });
export const over = (a: Fraction, b: Fraction): Fraction => fraction(a.n * b.d, a.d * b.n);
export const plus = (a: Fraction, b: Fraction): Fraction =>
  a.d === b.d ? { n: a.n + b.n, d: a.d } : { n: a.n * b.d + b.n * a.d, d: a.d * b.d };
export const minus = (a: Fraction, b: Fraction): Fraction => plus(a, { n: -b.n, d: b.d });

/** Negative, zero or positive as a is below, equal to or above b. */
export function compare(a: Fraction, b: Fraction): number {
  const difference = a.n * b.d - b.n * a.d;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}
