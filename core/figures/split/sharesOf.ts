import type { Figure, LineScope, ShareFigures, TaxFigures } from '../figures.types.ts';
import { finding, type Place } from '../../documents/finding.ts';
import type { Coding, Split } from '../../documents/case.schema.ts';
import { apportioner } from './apportion.ts';
import { splitWeights } from './splitWeights.ts';

export interface SharedPart {
  amount: bigint;
  claimAmount: Figure;
  ledgerAmount: Figure;
  tax: readonly TaxFigures[];
  split: Split | null;
  codingOf(own: Coding): { account: string; coding: Coding };
}

const WHOLE: Split = { by: 'equal', shares: [{ coding: {} }] };

/**
 * The shares of a line or item: every column is apportioned by the same weights, cost is their difference, so each
 * column adds up to the line's. Without a split there is one share; with a split that does not hold every figure is
 * null. Example: 100.00 in three equal shares → 33.34, 33.33, 33.33; no split → one share.
 */
export function sharesOf(scope: LineScope, place: Place, part: SharedPart): ShareFigures[] {
  const split = part.split ?? WHOLE;
  const result = splitWeights(split, part.amount, scope.line.currency);
  if (!result.ok) scope.findings.push(finding(result.problem, place, { difference: result.difference }));
  const spread = spreader(split.shares.length, result.ok ? apportioner(result.weights) : null);
  const own = part.tax.filter((row) => row.outputAccount !== null);
  const gross = spread(part.amount);
  const recoverable = spread(sumOf(part.tax, 'recoverable'));
  const selfAssessed = spread(sumOf(own, 'tax'));
  const claimAmount = spread(part.claimAmount);
  const ledgerGross = spread(part.ledgerAmount);
  const ledgerRecoverable = spread(sumOf(part.tax, 'ledgerRecoverable'));
  const ledgerSelfAssessed = spread(sumOf(own, 'ledgerTax'));
  return split.shares.map((share, i) => {
    const { account, coding } = part.codingOf(share.coding);
    return {
      account,
      coding,
      gross: gross[i]!,
      recoverable: recoverable[i]!,
      selfAssessed: selfAssessed[i]!,
      cost: costOf(gross[i]!, recoverable[i]!, selfAssessed[i]!),
      claimAmount: claimAmount[i]!,
      ledgerGross: ledgerGross[i]!,
      ledgerRecoverable: ledgerRecoverable[i]!,
      ledgerSelfAssessed: ledgerSelfAssessed[i]!,
      ledgerCost: costOf(ledgerGross[i]!, ledgerRecoverable[i]!, ledgerSelfAssessed[i]!),
    };
  });
}

/** Divides totals over the shares; nulls where the total is not known or the split does not hold. */
function spreader(count: number, apportion: ((total: bigint) => bigint[]) | null): (total: Figure) => Figure[] {
  const unknown: Figure[] = new Array<Figure>(count).fill(null);
  return (total) => (apportion === null || total === null ? unknown : apportion(total));
}

type TaxColumn = 'recoverable' | 'tax' | 'ledgerRecoverable' | 'ledgerTax';

function sumOf(rows: readonly TaxFigures[], column: TaxColumn): Figure {
  let sum = 0n;
  for (const row of rows) {
    const figure = row[column];
    if (figure === null) return null;
    sum += figure;
  }
  return sum;
}

const costOf = (gross: Figure, recoverable: Figure, selfAssessed: Figure): Figure =>
  gross === null || recoverable === null || selfAssessed === null ? null : gross - recoverable + selfAssessed;
