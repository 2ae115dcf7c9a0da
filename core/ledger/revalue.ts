import type { RowFigures } from '../figures/figures.types.ts';
import { referenceConverter } from '../figures/currency/converter.ts';
import type { RateTable } from '../figures/currency/rateTable.ts';
import { balanced, row } from './row.ts';
import type { OpenItem } from './settleOpenItem.ts';

export interface Revaluation {
  rows: RowFigures[];
  /** Currencies without a rate on the date; their items are left as booked. */
  missing: string[];
}

/**
 * The revaluation of open foreign items at a period's end: each account moves to what its open amount is worth at the
 * date's published rate, against exchange differences. It reverses itself on the next period's first day. An item in the
 * ledger's currency never moves. A payable of 1,000 booked at 1,100 and worth 1,080 → Dr payable 20, Cr exchange 20.
 */
export function revalue(
  items: readonly OpenItem[],
  rates: RateTable,
  date: string,
  ledgerCurrency: string,
  exchangeAccount: string,
): Revaluation {
  const missing = new Set<string>();
  const rows = items.flatMap((item) => {
    const worth = referenceConverter(rates, item.currency, ledgerCurrency, date).convert(item.open);
    if (worth === null) {
      missing.add(item.currency);
      return [];
    }
    const gain = item.kind === 'payable' ? item.booked - worth : worth - item.booked;
    const text = `Revalued at ${date}`;
    return [
      row(item.account, gain, { currency: item.currency, amount: 0n, text }),
      row(exchangeAccount, -gain, { currency: ledgerCurrency, amount: -gain, text }),
    ];
  });
  return { rows: balanced(rows), missing: [...missing] };
}
