import { fraction, type Fraction } from './fraction.ts';

const DECIMAL = /^-?(?:0|[1-9]\d*)(?:\.\d+)?$/;
const LONGEST = 60;

/**
 * True for a plain decimal such as "0", "12.50" or "-3.125": no sign +, no exponent, no grouping. "-3.125" → true;
 * "1e3", "1,000" and "" → false.
 */
export function isDecimal(text: string): boolean {
  return text.length <= LONGEST && DECIMAL.test(text);
}

/** The exact value of a plain decimal string. The string must satisfy `isDecimal`. "-0.125" → -1/8; "0" → 0/1. */
export function decimalToFraction(text: string): Fraction {
  const point = text.indexOf('.');
  if (point < 0) return { n: BigInt(text), d: 1n };
  return { n: BigInt(text.slice(0, point) + text.slice(point + 1)), d: 10n ** BigInt(text.length - point - 1) };
}

/**
 * A fraction written as a decimal of at most `places` decimals, cut (not rounded), without trailing zeros. 1/3 with 4
 * places → "0.3333"; -5/4 → "-1.25"; 0/1 → "0".
 */
export function fractionToDecimal(value: Fraction, places = 12): string {
  const { n, d } = fraction(value.n, value.d);
  const scaled = ((n < 0n ? -n : n) * 10n ** BigInt(places)) / d;
  const digits = scaled.toString().padStart(places + 1, '0');
  const whole = digits.slice(0, digits.length - places);
  const sign = n < 0n && scaled !== 0n ? '-' : '';
  return sign + trimZeros(`${whole}.${digits.slice(digits.length - places)}`);
}

/** A plain decimal without the zeros that end its decimals: "12.50" → "12.5"; "3.000" → "3"; "100" → "100". */
export const trimZeros = (decimal: string): string =>
  decimal.includes('.') ? decimal.replace(/(?<!0)0+$/, '').replace(/\.$/, '') : decimal;
