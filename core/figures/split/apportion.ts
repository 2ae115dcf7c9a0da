import { magnitude } from '../../numbers/amount.ts';

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
export const apportion = (total: bigint, weights: readonly bigint[]): bigint[] => apportioner(weights)(total);

/**
 * As `apportion`, for several totals over the same weights. apportioner([1n, 1n, 1n])(100n) → [34n, 33n, 33n]; of
 * -100n → [-34n, -33n, -33n]; of 0n → [0n, 0n, 0n].
 */
export function apportioner(weights: readonly bigint[]): (total: bigint) => bigint[] {
  let sum = 0n;
  for (const weight of weights) {
    if (weight < 0n) throw new RangeError('a weight cannot be negative');
    sum += weight;
  }
  return (total) => {
    if (total === 0n) return weights.map(() => 0n);
    if (sum === 0n) throw new RangeError(`${total} cannot be divided over weights that are all 0`);
    return weights.length === 1 ? [total] : divide(total, weights, sum);
  };
}

function divide(total: bigint, weights: readonly bigint[], sum: bigint): bigint[] {
  const amount = magnitude(total);
  const remainders: bigint[] = [];
  let left = amount;
  const shares = weights.map((weight, i) => {
    const product = amount * weight;
    const quota = product / sum;
    remainders[i] = product - quota * sum;
    left -= quota;
    return quota;
  });
  if (left > 0n) for (const index of byRemainder(remainders).slice(0, Number(left))) shares[index]! += 1n;
  return total < 0n ? shares.map((share) => -share) : shares;
}

/** Indexes of the shares, largest fractional part first, the earlier first on equality. */
function byRemainder(remainders: readonly bigint[]): number[] {
  return remainders
    .map((_, i) => i)
    .sort((a, b) => (remainders[a]! === remainders[b]! ? a - b : remainders[a]! > remainders[b]! ? -1 : 1));
}
