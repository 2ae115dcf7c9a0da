import currencyCodes from 'currency-codes';
import { describe, expect, it } from 'vitest';
import { currencyCodes as ours, minorUnits } from '../../core/numbers/minorUnits.ts';
import { decimalToFraction } from '../../core/numbers/decimal.ts';
import { over, times, type Fraction } from '../../core/numbers/fraction.ts';
import { roundHalfAway } from '../../core/numbers/roundHalfAway.ts';

/** Source: ISO 4217 list one (2024-06-25) as shipped by the registry package currency-codes. */
describe('ISO 4217 minor units', () => {
  /** The list gives "N.A." for these, which the package reads as 0. */
  const withoutMinorUnits = new Set('XAG XAU XBA XBB XBC XBD XDR XPD XPT XSU XTS XUA XXX'.split(' '));
  it('agree for every code of the list, and no other code is known', () => {
    const listed = currencyCodes.codes().filter((code) => !withoutMinorUnits.has(code));
    expect([...ours]).toEqual([...listed].sort());
    for (const code of listed) expect([code, minorUnits(code)]).toEqual([code, currencyCodes.code(code)!.digits]);
    for (const code of withoutMinorUnits) expect(minorUnits(code)).toBeNull();
  });
});

/**
 * Source: Council Regulation (EC) No 1103/97, articles 4 and 5, with the fixed rates of Regulation (EC) No 2866/98.
 * Rates and examples from memory of the regulation.
 */
describe('conversion at the fixed euro rates', () => {
  const rate = (text: string) => decimalToFraction(text);
  const rounded = (value: Fraction, decimals: number) => {
    const scaled = times(value, { n: 10n ** BigInt(decimals), d: 1n });
    return roundHalfAway(scaled.n, scaled.d);
  };
  const euros = (amount: string, perEuro: string) => over(rate(amount), rate(perEuro));

  it('DEM 100 is EUR 51.129 to three decimals, and by them FRF 335.38; by six decimals 335.39', () => {
    expect(rounded(euros('100', '1.95583'), 3)).toBe(51129n);
    expect(rounded(times(rate('51.129'), rate('6.55957')), 2)).toBe(33538n);
    const six = { n: rounded(euros('100', '1.95583'), 6), d: 10n ** 6n };
    expect(rounded(times(six, rate('6.55957')), 2)).toBe(33539n);
  });
  it('ITL 1,000,000 is EUR 516.46', () => {
    expect(rounded(euros('1000000', '1936.27'), 2)).toBe(51646n);
  });
  it('DEM 1,000,000 is EUR 511,291.88, not the 511,292.00 of a rounded inverse', () => {
    expect(rounded(euros('1000000', '1.95583'), 2)).toBe(51129188n);
    expect(rounded(times(rate('1000000'), rate('0.511292')), 2)).toBe(51129200n);
  });
  it('halves round up', () => {
    expect(rounded(rate('0.005'), 2)).toBe(1n);
  });
});

/** Source: IAS 21, paragraphs 21 to 28; own numbers by its rule: each amount at the rate of its own date. */
it('a liability booked at 1.10 and settled at 1.08 leaves a difference of 20', () => {
  const booked = roundHalfAway(100000n * 110n, 100n);
  const settled = roundHalfAway(100000n * 108n, 100n);
  expect(booked - settled).toBe(2000n);
});
