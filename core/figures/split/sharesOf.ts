import type { Figure, LineScope, ShareFigures, TaxFigures } from '../figures.types.ts';
import { finding, type Place } from '../../documents/finding.ts';
import type { Coding, Split } from '../../documents/case.schema.ts';
import { reclaim, recoveryOf, sumOf, type Spread } from './recoveryByCoding.ts';
import { apportioner } from './apportion.ts';
import { splitWeights } from './splitWeights.ts';

export interface SharedPart {
  /** What the split was made for. */
  claimed: bigint;
  /** What is divided by it. */
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
 * null. Example: 100.00 in three equal shares → 33.34, 33.33, 33.33; no split → one share. The tax rows come back as
 * they are after what the shares' codings forgo.
 */
export function sharesOf(
  scope: LineScope,
  place: Place,
  part: SharedPart,
): { tax: TaxFigures[]; shares: ShareFigures[] } {
  const split = part.split ?? WHOLE;
  const result = splitWeights(split, part.claimed, scope.line.currency);
  if (!result.ok) {
    const unit = split.by === 'percent' ? '%' : scope.line.currency;
    scope.findings.push(finding(result.problem, place, { difference: result.difference, unit }));
  }
  const spread = spreader(split.shares.length, result.ok ? apportioner(result.weights) : null);
  const codings = split.shares.map((share) => part.codingOf(share.coding));
  const recoveries = codings.map(({ coding }) => recoveryOf(scope, coding));
  const { tax, recoverable, ledgerRecoverable } = reclaim(part.tax, spread, recoveries);
  const own = tax.filter((row) => row.outputAccount !== null);
  const gross = spread(part.amount);
  const selfAssessed = spread(sumOf(own, 'tax'));
  const claimAmount = spread(part.claimAmount);
  const ledgerGross = spread(part.ledgerAmount);
  const ledgerSelfAssessed = spread(sumOf(own, 'ledgerTax'));
  const shares = codings.map(({ account, coding }, i) => ({
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
    recovery: recoveries[i]!,
  }));
  return { tax, shares };
}

/** Divides totals over the shares; nulls where the total is not known or the split does not hold. */
function spreader(count: number, apportion: ((total: bigint) => bigint[]) | null): Spread {
  const unknown: Figure[] = new Array<Figure>(count).fill(null);
  return (total) => (apportion === null || total === null ? unknown : apportion(total));
}

const costOf = (gross: Figure, recoverable: Figure, selfAssessed: Figure): Figure =>
  gross === null || recoverable === null || selfAssessed === null ? null : gross - recoverable + selfAssessed;
