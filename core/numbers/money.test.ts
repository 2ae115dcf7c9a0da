import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromMinor, readAmount, toMinor } from './amount.ts';
import { decimalToFraction, fractionToDecimal, isDecimal } from './decimal.ts';
import { fraction } from './fraction.ts';
import { roundHalfAway } from './roundHalfAway.ts';

describe('amounts', () => {
  it('have exactly the decimals of their currency', () => {
    expect(readAmount('202.00', 'EUR')).toBe(20200n);
    expect(readAmount('1500', 'JPY')).toBe(1500n);
    expect(readAmount('-0.500', 'BHD')).toBe(-500n);
    expect(readAmount('1.0000', 'CLF')).toBe(10000n);
  });
  it.each(['202', '202.0', '202.000', '-0.00', '+1.00', '01.00', '1,00', '1e2', '', ' 1.00', '１.00', '.50', '1.'])(
    'refuse %j in EUR',
    (text) => {
      expect(readAmount(text, 'EUR')).toBeNull();
    },
  );
  it('have no minor units in gold or in a currency that does not exist', () => {
    expect(readAmount('1', 'XAU')).toBeNull();
    expect(readAmount('1.00', 'ABC')).toBeNull();
    expect(() => toMinor('1', 'EUR')).toThrow(RangeError);
  });
  it('come back as they were written', () => {
    fc.assert(
      fc.property(
        fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }),
        fc.constantFrom('JPY', 'EUR', 'BHD', 'CLF'),
        (m, c) => readAmount(fromMinor(m, c), c) === m,
      ),
    );
  });
});

describe('decimals', () => {
  it('are plain', () => {
    expect(['0', '1', '-1.5', '0.001'].every(isDecimal)).toBe(true);
    expect(['', '1.', '.1', '1e3', '01', '--1', '1_0', 'NaN', `1${'0'.repeat(60)}`].some(isDecimal)).toBe(false);
  });
  it('become exact fractions and are cut when shown', () => {
    expect(decimalToFraction('-12.50')).toEqual({ n: -1250n, d: 100n });
    expect(fractionToDecimal(fraction(2n, 3n), 4)).toBe('0.6666');
    expect(fractionToDecimal(fraction(-1n, 8n))).toBe('-0.125');
    expect(fractionToDecimal(fraction(-1n, 1000n), 2)).toBe('0');
  });
});

describe('rounding', () => {
  it('takes halves away from zero', () => {
    const cases: [bigint, bigint, bigint][] = [
      [5n, 2n, 3n],
      [-5n, 2n, -3n],
      [7n, 5n, 1n],
      [8n, 5n, 2n],
      [0n, 3n, 0n],
      [1n, 2n, 1n],
      [-1n, 2n, -1n],
    ];
    for (const [n, d, r] of cases) expect(roundHalfAway(n, d)).toBe(r);
  });
  it('is never more than half a unit off', () => {
    fc.assert(
      fc.property(fc.bigInt(), fc.bigInt({ min: 1n, max: 10n ** 12n }), (n, d) => {
        const off = 2n * (roundHalfAway(n, d) * d - n);
        return off >= -d && off <= d;
      }),
    );
  });
});
