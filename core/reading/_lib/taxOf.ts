import { decimalToFraction, isDecimal } from '../../money/decimal.ts';
import type { Fraction } from '../../money/fraction.ts';

/** A rate in percent as it is printed. */
export const RATE = /(?<![\d.,])(\d{1,2}(?:[.,]\d{1,2})?) ?%/g;

/** Whether a tax in minor units is that within a total at a rate in percent, to one minor unit. */
export function isTaxOf(tax: bigint, total: bigint | null, rate: string): boolean {
  const percent = percentOf(rate);
  if (!percent || total === null || percent.n === 0n) return false;
  return close(total * percent.n, 100n * percent.d + percent.n, tax);
}

/** Whether a tax in minor units is that on top of a net at a rate in percent, to one minor unit. */
export function isTaxOn(tax: bigint, net: bigint, rate: string): boolean {
  const percent = percentOf(rate);
  return percent !== null && percent.n !== 0n && close(net * percent.n, 100n * percent.d, tax);
}

/** Whether top / bottom is within one minor unit of a figure. */
export function close(top: bigint, bottom: bigint, figure: bigint): boolean {
  const off = top - figure * bottom;
  return (off < 0n ? -off : off) <= bottom;
}

export const percentOf = (rate: string): Fraction | null => (isDecimal(rate) ? decimalToFraction(rate) : null);
