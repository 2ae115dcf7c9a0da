import { magnitude } from '../money/amount.ts';

/**
 * Divides an integer total over weights by the largest remainder (Hamilton's method).
 *
 * Every share takes the floor of its quota |total| × w / Σw; the units left go, one each, to the largest
 * fractional parts, the earlier share first on equality; the sign of the total is put back.
 * The shares always add up to the total. (7n, [1n,1n,1n]) → [3n,2n,2n]; (-7n, …) → [-3n,-2n,-2n]; (0n, …) → zeros.
 *
 * Negative weights, and a total other than 0 over weights that are all 0, throw a RangeError: callers turn
 * both into findings before they get here.
 */
export function apportion(total: bigint, weights: readonly bigint[]): bigint[] {
  if (weights.some((w) => w < 0n)) throw new RangeError('a weight cannot be negative');
  const sum = weights.reduce((a, w) => a + w, 0n);
  if (sum === 0n) return allZero(total, weights);
  const amount = magnitude(total);
  const shares = weights.map((w) => (amount * w) / sum);
  const left = Number(amount - shares.reduce((a, s) => a + s, 0n));
  if (left > 0) for (const index of byRemainder(amount, weights, sum).slice(0, left)) shares[index]! += 1n;
  return total < 0n ? shares.map((s) => -s) : shares;
}

function allZero(total: bigint, weights: readonly bigint[]): bigint[] {
  if (total !== 0n) throw new RangeError(`${total} cannot be divided over weights that are all 0`);
  return weights.map(() => 0n);
}

/** Indexes of the shares, largest fractional part first, the earlier first on equality (the sort is stable). */
function byRemainder(amount: bigint, weights: readonly bigint[], sum: bigint): number[] {
  const remainders = weights.map((w) => (amount * w) % sum);
  return weights.map((_, i) => i).sort((a, b) => compareBig(remainders[b]!, remainders[a]!) || a - b);
}

const compareBig = (a: bigint, b: bigint): number => (a < b ? -1 : a > b ? 1 : 0);
