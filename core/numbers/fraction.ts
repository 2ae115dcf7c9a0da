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

/**
 * n/d with the sign carried by the numerator. A zero denominator is a programming error. (2n, -4n) → -1/2 or an equal
 * one; (0n) → 0/1.
 */
export function fraction(n: bigint, d: bigint = 1n): Fraction {
  if (d === 0n) throw new RangeError('a fraction cannot have the denominator 0');
  return d < 0n ? { n: -n, d: -d } : { n, d };
}

/** The exact product: 1/3 × -3/4 → -1/4. */
export const times = (a: Fraction, b: Fraction): Fraction => ({ n: a.n * b.n, d: a.d * b.d });
/** The exact quotient: 1/3 over -2/3 → -1/2. Over zero is a programming error. */
export const over = (a: Fraction, b: Fraction): Fraction => fraction(a.n * b.d, a.d * b.n);
/** The exact sum: 1/3 + 1/6 → 1/2. */
export const plus = (a: Fraction, b: Fraction): Fraction =>
  a.d === b.d ? { n: a.n + b.n, d: a.d } : { n: a.n * b.d + b.n * a.d, d: a.d * b.d };
/** The exact difference: 1/6 − 1/3 → -1/6. */
export const minus = (a: Fraction, b: Fraction): Fraction => plus(a, { n: -b.n, d: b.d });

/** Negative, zero or positive as a is below, equal to or above b. (1/3, 1/2) → negative; (2/4, 1/2) → 0. */
export function compare(a: Fraction, b: Fraction): number {
  const difference = a.n * b.d - b.n * a.d;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}
