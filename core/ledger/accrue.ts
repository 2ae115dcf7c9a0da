import type { LineFigures, OpenCase, RowFigures } from '../figures/figures.types.ts';
import { balanced, row } from './row.ts';

/**
 * The accrual of a claim that is not posted at a period's end: the cost of each share, net of recoverable tax, against
 * the entity's accruals account. It reverses itself on the first day of the next period (reverseRows). A share whose
 * cost cannot be computed is left out and returned, so that somebody can estimate it. Example: 123.00 with 23.00
 * reclaimable → Dr cost 100.00, Cr accruals 100.00.
 */
export function accrue(open: OpenCase, lines: readonly LineFigures[]): { rows: RowFigures[]; without: string[] } {
  const { accruals } = open.entity.accounts;
  if (!accruals) throw new RangeError(`entity ${open.entity.id} has no accruals account`);
  const { number } = open.case.claim;
  const shares = lines.flatMap(({ line, parts }) =>
    parts.flatMap((part) => part.shares.map((share) => ({ line, item: part.item, share }))),
  );
  const known = shares.filter(({ share }) => share.ledgerCost !== null && share.cost !== null);
  const costs = known.map(({ line, item, share }) => ({
    ...row(share.account, share.ledgerCost!, {
      currency: line.currency,
      amount: share.cost!,
      coding: share.coding,
      text: `Accrued ${number}`,
    }),
    line: line.id,
    item,
  }));
  const total = costs.reduce((a, r) => a + r.debit, 0n);
  const currency = open.ledgerCurrency;
  return {
    rows: balanced([...costs, row(accruals, -total, { currency, amount: -total, text: `Accrued ${number}` })]),
    without: [...new Set(shares.filter((s) => !known.includes(s)).map((s) => s.line.id))],
  };
}
