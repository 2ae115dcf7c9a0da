import Decimal from 'decimal.js';
import 'largest-remainder-round';
import { describe, expect, it } from 'vitest';
import rates from 'sales-tax/res/sales_tax_rates.json' with { type: 'json' };
import { decimalToFraction } from '../../core/numbers/decimal.ts';
import { roundHalfAway } from '../../core/numbers/roundHalfAway.ts';
import { apportion } from '../../core/figures/split/apportion.ts';
import { componentsOf, includedTax } from '../../core/figures/tax/taxEntry.ts';
import { randomFrom } from '../../demo/random.ts';

const rounded = (text: string) => {
  const { n, d } = decimalToFraction(text);
  return Number(roundHalfAway(n, d));
};

/** Source: the table of java.math.RoundingMode, HALF_UP. From memory. */
describe('half up of the RoundingMode table', () => {
  it.each([
    ['5.5', 6],
    ['2.5', 3],
    ['1.6', 2],
    ['1.1', 1],
    ['1.0', 1],
    ['-1.0', -1],
    ['-1.1', -1],
    ['-1.6', -2],
    ['-2.5', -3],
    ['-5.5', -6],
  ] as [string, number][])('%s → %d', (text, result) => {
    expect(rounded(text)).toBe(result);
  });
});

/** Reference: the platform's Intl.NumberFormat on decimal strings with roundingMode halfExpand (ECMA-402). */
it('agrees with Intl.NumberFormat on decimal strings', () => {
  const format = new Intl.NumberFormat('en', {
    maximumFractionDigits: 0,
    useGrouping: false,
    roundingMode: 'halfExpand',
  } as Intl.NumberFormatOptions);
  const r = randomFrom(11);
  for (let i = 0; i < 2000; i += 1) {
    const text = `${r.next() < 0.5 ? '-' : ''}${r.whole(1, 99_999)}.${r.pick(['5', '49', '50', '51', '499999', '500001', String(r.whole(1, 999))])}`;
    expect([text, String(rounded(text))]).toEqual([text, format.format(text as unknown as number)]);
  }
});

/** Reference library: decimal.js 10 with ROUND_HALF_UP (away from zero). */
it('agrees with decimal.js on tax in a gross amount', () => {
  Decimal.set({ precision: 60, rounding: Decimal.ROUND_HALF_UP });
  const r = randomFrom(12);
  for (let i = 0; i < 1000; i += 1) {
    const [gross, rate] = [BigInt(r.whole(-99_999, 999_999)), r.pick(['23', '13.5', '20', '19', '7.7', '8.25'])];
    const components = componentsOf({ code: 'T', country: 'IE', rate, account: '1', recovery: '100' });
    const ours = includedTax(gross, components, null);
    const theirs = new Decimal(gross.toString()).times(rate).div(new Decimal(100).plus(rate)).toDecimalPlaces(0);
    expect(ours.ok && ours.taxes[0]!.toString()).toBe(theirs.isZero() ? '0' : theirs.toFixed(0));
  }
});

/** Reference library: largest-remainder-round 1.1, which adds `spread` to arrays (floats, so small numbers without ties). */
it('agrees with largest-remainder-round without ties', () => {
  for (const weights of [
    [1, 2, 4],
    [3, 5, 7, 11],
    [13, 17, 19, 23, 29],
  ]) {
    const theirs = weights.spread(100);
    expect(apportion(100n, weights.map(BigInt)).map(Number)).toEqual([...theirs]);
  }
});

/** Source: EN 16931 business rule BR-CO-17: tax of a rate group = net × rate, two decimals. */
it('100.00 at 19 % is 19.00 of tax, so 119.00 holds 19.00', () => {
  const figures = includedTax(
    11900n,
    componentsOf({ code: 'T', country: 'DE', rate: '19', account: '1', recovery: '0' }),
    null,
  );
  expect(figures).toMatchObject({ net: 10000n, taxes: [1900n] });
});

/** Open data: standard rates as the registry package sales-tax ships them; a gross of 100 + rate holds exactly the rate. */
describe('standard rates of the European Union', () => {
  const countries = 'AT BE BG HR CY CZ DK DE GR FR HU IE IT LV LT LU MT NL PL PT SI ES SE'.split(' ');
  it.each(countries)('%s', (country) => {
    const rate = (rates as unknown as Record<string, { rate: number }>)[country]!.rate;
    const percent = new Decimal(rate).times(100);
    const gross = BigInt(percent.plus(100).times(100).toFixed(0));
    const figures = includedTax(
      gross,
      componentsOf({ code: 'T', country, rate: percent.toString(), account: '1', recovery: '0' }),
      null,
    );
    expect(figures).toMatchObject({ net: 10000n, taxes: [gross - 10000n] });
  });
});
