import type { Line } from '../../documents/case.schema.ts';
import { minorPerMajor, toMinor } from '../../numbers/amount.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { fraction, times, ZERO, type Fraction } from '../../numbers/fraction.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';
import type { Rate, RateTable } from './rateTable.ts';

/** Converts minor units of one currency to another by one exact factor, rounding once. */
export interface Converter {
  /** Minor units of the target for minor units of the source; null when there is no rate. */
  convert(minor: bigint): bigint | null;
  /** Target units for one source unit (major to major), or null; for showing how a figure came about. */
  factor: Fraction | null;
  /** The published rate used on the way, if any. */
  rate: Rate | null;
}

/**
 * A converter from major-to-major `factor`; null stands for a missing rate. ("USD", "EUR", 9/10).convert(100n) → 90n;
 * with null for the factor → null.
 */
export function converterOf(from: string, to: string, factor: Fraction | null, rate: Rate | null = null): Converter {
  if (factor === null) return { convert: () => null, factor, rate };
  if (factor.n === factor.d && from === to) return { convert: (minor) => minor, factor, rate };
  const n = factor.n * minorPerMajor(to);
  const d = factor.d * minorPerMajor(from);
  return { convert: (minor) => roundHalfAway(minor * n, d), factor, rate };
}

/**
 * By the published rates of a date. USD to EUR at 0.9 → 10000n gives 9000n; the same currency → unchanged; no quote →
 * null.
 */
export function referenceConverter(rates: RateTable, from: string, to: string, date: string): Converter {
  const rate = rates.find(from, to, date);
  return converterOf(from, to, rate?.value ?? null, rate);
}

/**
 * The converter of a line into the claim's or the ledger's currency, by its kind of rate: a card charge converts in
 * proportion to what the bank took, a claimant's own rate applies to the claim currency and is carried on from there to
 * the ledger's by the published rate. An amount already in the target currency stays itself, whatever the kind. A card
 * took 92.30 EUR for 100.00 USD → 50.00 USD is 46.15 EUR.
 */
export function lineConverter(
  line: Line,
  to: string,
  claimCurrency: string,
  rates: RateTable,
  date: string,
): Converter {
  if (line.currency === to) return converterOf(to, to, fraction(1n));
  const kind = line.rate ?? { kind: 'reference' as const };
  switch (kind.kind) {
    case 'reference':
      return referenceConverter(rates, line.currency, to, date);
    case 'card':
      return carriedOn(
        line.currency,
        settledFactor(line, kind.settled),
        rates.find(kind.settled.currency, to, date),
        to,
      );
    case 'own':
      return carriedOn(line.currency, decimalToFraction(kind.value), rates.find(claimCurrency, to, date), to);
    default:
      return kind satisfies never;
  }
}

function carriedOn(from: string, factor: Fraction, rate: Rate | null, to: string): Converter {
  return converterOf(from, to, rate && times(factor, rate.value), rate);
}

/** Settled units for one unit of the line's currency; 0 for a charge of 0. */
function settledFactor(line: Line, settled: { amount: string; currency: string }): Fraction {
  const amount = toMinor(line.amount, line.currency);
  if (amount === 0n) return ZERO;
  const taken = toMinor(settled.amount, settled.currency);
  return fraction(taken * minorPerMajor(line.currency), amount * minorPerMajor(settled.currency));
}
