import { decimalToFraction, isDecimal } from '../../../numbers/decimal.ts';
import type { Fraction } from '../../../numbers/fraction.ts';

/** A rate in percent as it is printed with its sign; a recogniser puts spaces around the mark of its decimals: "19, 0 %". */
export const RATE = /(?<![\d.,]|\d[.,] )(\d{1,2}(?: ?[.,] ?\d{1,4})?) ?%/g;

/** A number that may be a rate, as it stands in a column of rates. */
export const BARE_RATE = /(?<![\d.,])(\d{1,2}(?:[.,]\d{1,4})?)(?![\d.,])/g;

/** A printed rate as a decimal: "19,0" and "19, 0" are "19". */
export const rateIn = (printed: string): string => String(Number(printed.replace(/\s/g, '').replace(',', '.')));

/** Whether a tax in minor units is that within a total at a rate in percent, to one minor unit. */
export function isTaxOf(tax: bigint, total: bigint | null, rate: string): boolean {
  const percent = percentOf(rate);
  if (!percent || total === null || percent.n === 0n) return false;
  return close(total * percent.n, 100n * percent.d + percent.n, tax);
}

/** Whether a tax in minor units is exactly what rounding that within a total at a rate in percent gives. */
export function isRoundedTaxOf(tax: bigint, total: bigint | null, rate: string): boolean {
  const percent = percentOf(rate);
  if (!percent || total === null || percent.n === 0n) return false;
  return close(2n * total * percent.n, 100n * percent.d + percent.n, 2n * tax);
}

/** Whether a tax in minor units is that on top of a net at a rate in percent, to one minor unit. */
export function isTaxOn(tax: bigint, net: bigint, rate: string): boolean {
  const percent = percentOf(rate);
  return percent !== null && percent.n !== 0n && close(net * percent.n, 100n * percent.d, tax);
}

/** Whether top / bottom is within one minor unit of a figure. */
function close(top: bigint, bottom: bigint, figure: bigint): boolean {
  const off = top - figure * bottom;
  return (off < 0n ? -off : off) <= bottom;
}

const percentOf = (rate: string): Fraction | null => (isDecimal(rate) ? decimalToFraction(rate) : null);
