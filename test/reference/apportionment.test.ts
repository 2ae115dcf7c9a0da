import { dinero, allocate, toSnapshot } from 'dinero.js';
import { EUR } from 'dinero.js/currencies';
import { describe, expect, it } from 'vitest';
import { apportion } from '../../core/figures/split/apportion.ts';

const numbers = (total: number, weights: number[]) => apportion(BigInt(total), weights.map(BigInt)).map(Number);

/** Source: apportionment of the first United States census (1790), 120 seats, by Hamilton's method. From memory of the published table. */
it('the first census: 120 seats', () => {
  const population = {
    VA: 630560,
    MA: 475327,
    PA: 432879,
    NC: 353523,
    NY: 331589,
    MD: 278514,
    CT: 236841,
    SC: 206236,
    NJ: 179570,
    NH: 141822,
    VT: 85533,
    GA: 70835,
    KY: 68705,
    RI: 68446,
    DE: 55540,
  };
  expect(numbers(120, Object.values(population))).toEqual([21, 16, 14, 12, 11, 9, 8, 7, 6, 5, 3, 2, 2, 2, 2]);
});

/** Source: the Alabama paradox as textbooks show it: one seat more takes one from the smallest. */
it('the Alabama paradox', () => {
  expect(numbers(10, [6, 6, 2])).toEqual([4, 4, 2]);
  expect(numbers(11, [6, 6, 2])).toEqual([5, 5, 1]);
});

/** Reference library: dinero.js 2. Its remainders go to the first shares, so only the sum is compared. */
describe('conservation beside dinero.js', () => {
  it('both give the whole amount away', () => {
    for (const [amount, ratios] of [
      [10001, [1, 1, 1]],
      [777, [50, 30, 20]],
      [1, [1, 1]],
      [99999, [7, 11, 13, 17]],
    ] as [number, number[]][]) {
      const theirs = allocate(dinero({ amount, currency: EUR }), ratios).reduce((a, d) => a + toSnapshot(d).amount, 0);
      const ours = numbers(amount, ratios).reduce((a, b) => a + b, 0);
      expect([ours, theirs]).toEqual([amount, amount]);
    }
  });
});
