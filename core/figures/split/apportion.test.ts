import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apportion } from './apportion.ts';

const total = (xs: bigint[]) => xs.reduce((a, x) => a + x, 0n);
const weights = fc
  .array(fc.bigInt({ min: 0n, max: 10n ** 9n }), { minLength: 1, maxLength: 12 })
  .filter((w) => w.some((x) => x > 0n));
const amount = fc.bigInt({ min: -(10n ** 15n), max: 10n ** 15n });

describe('apportion', () => {
  it('gives the units left to the largest fractional parts, the earlier share first on equality', () => {
    expect(apportion(7n, [1n, 1n, 1n])).toEqual([3n, 2n, 2n]);
    expect(apportion(10n, [6n, 6n, 2n])).toEqual([4n, 4n, 2n]);
    expect(apportion(10n, [1n, 2n, 1n])).toEqual([3n, 5n, 2n]);
  });
  it('mirrors negative totals, and divides 0 into zeros', () => {
    expect(apportion(-7n, [1n, 1n, 1n])).toEqual([-3n, -2n, -2n]);
    expect(apportion(0n, [1n, 2n])).toEqual([0n, 0n]);
    expect(apportion(0n, [0n, 0n])).toEqual([0n, 0n]);
  });
  it('refuses negative weights, and a total over nothing', () => {
    expect(() => apportion(1n, [1n, -1n])).toThrow('negative');
    expect(() => apportion(1n, [0n, 0n])).toThrow('all 0');
  });
  it('loses nothing', () => {
    fc.assert(fc.property(amount, weights, (a, w) => total(apportion(a, w)) === a));
  });
  it('gives every share its quota to within one unit, and nothing for weight 0', () => {
    fc.assert(
      fc.property(amount, weights, (a, w) => {
        const sum = total(w);
        return apportion(a, w).every((share, i) => {
          const off = share * sum - a * w[i]!;
          return off > -sum && off < sum && (w[i] !== 0n || share === 0n);
        });
      }),
    );
  });
  it('negates with its total and does not change when weights are scaled', () => {
    fc.assert(
      fc.property(amount, weights, fc.bigInt({ min: 1n, max: 1000n }), (a, w, k) => {
        expect(apportion(-a, w)).toEqual(apportion(a, w).map((x) => -x));
        expect(
          apportion(
            a,
            w.map((x) => x * k),
          ),
        ).toEqual(apportion(a, w));
      }),
    );
  });
  it('gives a larger weight no less', () => {
    fc.assert(
      fc.property(fc.bigInt({ min: 0n, max: 10n ** 9n }), weights, (a, w) => {
        const shares = apportion(a, w);
        return w.every((x, i) => w.every((y, j) => x <= y || shares[i]! >= shares[j]!));
      }),
    );
  });
});
