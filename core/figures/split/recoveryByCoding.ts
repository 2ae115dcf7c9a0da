import type { Coding } from '../../documents/case.schema.ts';
import { sumKnown } from '../../numbers/amount.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { compare } from '../../numbers/fraction.ts';
import { holdsOn } from '../../numbers/isoDate.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';
import type { Figure, LineScope, TaxFigures } from '../figures.types.ts';

/** A total divided over the shares of a part; nulls where it is not known or the split does not hold. */
export type Spread = (total: Figure) => Figure[];

/**
 * What a coding lets be reclaimed of the tax that would be, in percent as the book writes it: the least of the entity's
 * rows that name one of its values on the line's date, "100" without one. Example: fund 70 forgoes all → "0".
 */
export function recoveryOf({ entity, line }: Pick<LineScope, 'entity' | 'line'>, coding: Coding): string {
  return (entity.recoveryByCoding ?? [])
    .filter((row) => holdsOn(row, line.date) && row.values.includes(coding[row.dimension] ?? ''))
    .map((row) => row.recovery)
    .reduce((least, r) => (compare(decimalToFraction(r), decimalToFraction(least)) < 0 ? r : least), '100');
}

interface Reclaimed {
  tax: TaxFigures[];
  /** Of each share, in the line's and in the ledger's currency. */
  recoverable: Figure[];
  ledgerRecoverable: Figure[];
}

/**
 * What each share reclaims (rule 32). Where every coding lets all be reclaimed, the sum over the taxes is divided (rule 16);
 * else each tax by itself, each share's part is reduced by its coding and rounded, and the tax reclaims what is left.
 * Example: 18.70 over three equal shares of which the first forgoes all → 0.00, 6.23, 6.23, and 12.46 of the tax.
 */
export function reclaim(rows: readonly TaxFigures[], spread: Spread, recoveries: readonly string[]): Reclaimed {
  if (recoveries.every((r) => r === '100'))
    return {
      tax: [...rows],
      recoverable: spread(sumOf(rows, 'recoverable')),
      ledgerRecoverable: spread(sumOf(rows, 'ledgerRecoverable')),
    };
  const reduced = (total: Figure) => spread(total).map((part, i) => reduce(part, recoveries[i]!));
  const source = rows.map((row) => reduced(row.recoverable));
  const ledger = rows.map((row) => reduced(row.ledgerRecoverable));
  const ofShare = (columns: Figure[][]) => recoveries.map((_, i) => sumKnown(columns.map((column) => column[i]!)));
  return {
    tax: rows.map((row, k) => ({
      ...row,
      recoverable: sumKnown(source[k]!),
      ledgerRecoverable: sumKnown(ledger[k]!),
    })),
    recoverable: ofShare(source),
    ledgerRecoverable: ofShare(ledger),
  };
}

function reduce(part: Figure, recovery: string): Figure {
  const { n, d } = decimalToFraction(recovery);
  return part === null ? null : roundHalfAway(part * n, d * 100n);
}

/** The sum of a column, null when one of its figures is. (18.70, 2.30) → 21.00; no rows → 0. */
export const sumOf = (
  rows: readonly TaxFigures[],
  column: 'recoverable' | 'tax' | 'ledgerRecoverable' | 'ledgerTax',
): Figure => sumKnown(rows.map((row) => row[column]));
