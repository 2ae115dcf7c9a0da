import type { Assessment, ShareRow } from '../documents/assessment.schema.ts';
import type { Claim } from '../documents/case.schema.ts';
import { toMinor } from '../numbers/amount.ts';

/** A budget: what may be charged to a code of a dimension, for one category or (null) for all. */
export interface Budget {
  id: string;
  dimension: string;
  code: string;
  category: string | null;
}
/** What a claim charges to a budget, in ledger minor units. */
export interface BudgetUse {
  id: string;
  amount: bigint;
}

/**
 * What the shares of an assessed claim charge to each budget, in ledger minor units; budgets it does not touch are left
 * out, and so are shares whose cost cannot be computed. A share counts for the budget of each of its codes, and for the
 * one of its category there. Example: 100.00 to grant G-1 for a meal, budgets G-1 and G-1/meal → both 10000.
 */
export function budgetUse(
  assessment: Pick<Assessment, 'lines'>,
  claim: Pick<Claim, 'lines'>,
  budgets: readonly Budget[],
  ledgerCurrency: string,
): BudgetUse[] {
  const charged = chargesOf(assessment, claim);
  return budgets.flatMap((budget) => {
    const own = charged.filter((c) => counts(budget, c));
    const amount = own.reduce((a, c) => a + costOf(c.share, ledgerCurrency), 0n);
    return own.length === 0 ? [] : [{ id: budget.id, amount }];
  });
}

interface Charged {
  share: ShareRow;
  category: string | null;
}

function chargesOf({ lines }: Pick<Assessment, 'lines'>, claim: Pick<Claim, 'lines'>): Charged[] {
  const categoryOf = new Map<string, string | null>();
  for (const line of claim.lines) {
    categoryOf.set(`${line.id}/`, line.category ?? null);
    for (const item of line.items ?? []) categoryOf.set(`${line.id}/${item.id}`, item.category ?? null);
  }
  return lines.flatMap((line) =>
    line.parts.flatMap((part) =>
      part.shares.map((share) => ({ share, category: categoryOf.get(`${line.id}/${part.item ?? ''}`) ?? null })),
    ),
  );
}

const counts = ({ dimension, code, category }: Budget, charged: Charged): boolean =>
  charged.share.coding[dimension] === code && (category === null || category === charged.category);

const costOf = ({ ledgerCost }: ShareRow, currency: string): bigint =>
  ledgerCost === null ? 0n : toMinor(ledgerCost, currency);
