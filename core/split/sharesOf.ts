import type { Figure, LineScope, ShareFigures, TaxFigures } from '../assess/assess.types.ts';
import { finding, type Place } from '../finding/finding.ts';
import type { Coding, Split } from '../formats/case.schema.ts';
import { sumKnown } from '../money/amount.ts';
import { apportion } from './apportion.ts';
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
const COLUMNS = [
  'gross',
  'recoverable',
  'selfAssessed',
  'claimAmount',
  'ledgerGross',
  'ledgerRecoverable',
  'ledgerSelfAssessed',
] as const;
type Column = (typeof COLUMNS)[number];

/**
 * The shares of a line or item: every column is apportioned by the same weights, cost is their difference, so each
 * column adds up to the line's. Without a split there is one share; with a split that does not hold every figure is null.
 */
export function sharesOf(scope: LineScope, place: Place, part: SharedPart): ShareFigures[] {
  const split = part.split ?? WHOLE;
  const result = splitWeights(split, part.amount, scope.line.currency);
  if (!result.ok) scope.findings.push(finding(result.problem, place, { difference: result.difference }));
  const totals = columnTotals(part);
  const spread = (total: Figure) =>
    result.ok && total !== null ? apportion(total, result.weights) : split.shares.map(() => null);
  const columns = Object.fromEntries(COLUMNS.map((c) => [c, spread(totals[c])])) as Record<Column, Figure[]>;
  return split.shares.map((share, i) => {
    const row = Object.fromEntries(COLUMNS.map((c) => [c, columns[c][i]!])) as Record<Column, Figure>;
    return {
      ...part.codingOf(share.coding),
      ...row,
      cost: costOf(row.gross, row.recoverable, row.selfAssessed),
      ledgerCost: costOf(row.ledgerGross, row.ledgerRecoverable, row.ledgerSelfAssessed),
    };
  });
}

function columnTotals({ amount, claimAmount, ledgerAmount, tax }: SharedPart): Record<Column, Figure> {
  const own = tax.filter((row) => row.outputAccount !== null);
  return {
    gross: amount,
    recoverable: sumKnown(tax.map((row) => row.recoverable)),
    selfAssessed: sumKnown(own.map((row) => row.tax)),
    claimAmount,
    ledgerGross: ledgerAmount,
    ledgerRecoverable: sumKnown(tax.map((row) => row.ledgerRecoverable)),
    ledgerSelfAssessed: sumKnown(own.map((row) => row.ledgerTax)),
  };
}

const costOf = (gross: Figure, recoverable: Figure, selfAssessed: Figure): Figure =>
  gross === null || recoverable === null || selfAssessed === null ? null : gross - recoverable + selfAssessed;
