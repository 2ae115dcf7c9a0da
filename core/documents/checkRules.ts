import { readAmount } from '../numbers/amount.ts';
import type { Case } from './case.schema.ts';
import type { Report } from './problem.ts';
import type { Limit } from './rules.schema.ts';

type Path = (string | number)[];

/**
 * Amounts of rules and budgets carry the decimals of their currency; ids of rules are not used twice on a
 * date. Example: a cap of "10.5" in JPY → one problem at its amount.
 */
export function checkRules({ book }: Case, ledgerCurrency: string, report: Report): void {
  const check = (amount: string, currency: string, path: Path) => {
    if (readAmount(amount, currency) === null)
      report(path, `"${amount}" is not an amount with the decimals of ${currency}`);
  };
  book.limits?.forEach((limit, i) => {
    for (const [field, money] of moneyOf(limit))
      check(money.amount, money.currency, ['book', 'limits', i, field, 'amount']);
  });
  book.dimensions?.forEach((dimension, d) =>
    dimension.values.forEach((value, v) => {
      const path = ['book', 'dimensions', d, 'values', v];
      if (value.left != null) check(value.left, ledgerCurrency, [...path, 'left']);
      value.caps?.forEach((cap, c) => check(cap.left, ledgerCurrency, [...path, 'caps', c, 'left']));
    }),
  );
}

function moneyOf(limit: Limit): [string, { amount: string; currency: string }][] {
  switch (limit.kind) {
    case 'cap':
    case 'near':
      return [['cap', limit.cap]];
    case 'receipt':
      return [['above', limit.above]];
    case 'plan':
      return limit.above ? [['above', limit.above]] : [];
    default:
      return [];
  }
}
