import { minorUnits } from './minorUnits.ts';
import { isDecimal } from './decimal.ts';

/** 10 to the power of the decimals of a currency: minor units in one major unit (EUR 100, JPY 1, BHD 1000). */
export function minorPerMajor(currency: string): bigint {
  return 10n ** BigInt(decimalsOf(currency));
}

function decimalsOf(currency: string): number {
  const decimals = minorUnits(currency);
  if (decimals === null) throw new RangeError(`${currency} is not a currency with minor units`);
  return decimals;
}

/**
 * Minor units of an amount written with exactly the decimals of its currency:
 * ("202.00", "EUR") → 20200n, ("1500", "JPY") → 1500n, ("-0.500", "BHD") → -500n.
 * Anything else, "-0.00" included, is null.
 */
export function readAmount(text: string, currency: string): bigint | null {
  const decimals = minorUnits(currency);
  if (decimals === null || !isDecimal(text) || /^-0(\.0+)?$/.test(text)) return null;
  const point = text.indexOf('.');
  const given = point < 0 ? 0 : text.length - point - 1;
  return given === decimals ? BigInt(text.replace('.', '')) : null;
}

/**
 * As `readAmount`, for text that has been checked before; throws a RangeError when it has not. ("-12.50", "EUR") →
 * -1250n; ("120", "JPY") → 120n; ("0.000", "BHD") → 0n.
 */
export function toMinor(text: string, currency: string): bigint {
  const minor = readAmount(text, currency);
  if (minor === null) throw new RangeError(`"${text}" is not an amount of ${currency}`);
  return minor;
}

/** Minor units written as a decimal string with exactly the currency's decimals: (-500n, "BHD") → "-0.500". */
export function fromMinor(minor: bigint, currency: string): string {
  const decimals = decimalsOf(currency);
  if (decimals === 0) return minor.toString();
  const negative = minor < 0n;
  const digits = (negative ? -minor : minor).toString().padStart(decimals + 1, '0');
  const cut = digits.length - decimals;
  return `${negative ? '-' : ''}${digits.slice(0, cut)}.${digits.slice(cut)}`;
}

/** Without its sign: -1250n → 1250n; 0n → 0n. */
export const magnitude = (minor: bigint): bigint => (minor < 0n ? -minor : minor);
/** -1, 0 or 1. -1250n → -1; 0n → 0; 3n → 1. */
export const signOf = (minor: bigint): number => (minor < 0n ? -1 : minor > 0n ? 1 : 0);
/** The sum, or null as soon as one figure is not known. [5n, -2n] → 3n; [] → 0n; [5n, null] → null. */
export function sumKnown(figures: readonly (bigint | null)[]): bigint | null {
  let sum = 0n;
  for (const figure of figures) {
    if (figure === null) return null;
    sum += figure;
  }
  return sum;
}
