import type { RowFigures } from '../figures/figures.types.ts';
import { balanced, row } from './row.ts';
import { magnitude } from '../numbers/amount.ts';
import { roundHalfAway } from '../numbers/roundHalfAway.ts';

/**
 * What is still open on an account in a currency of its own: a payable (owed to somebody), a receivable or an advance
 * (owed by somebody). `open` in minor units of `currency`, `booked` its ledger value; both positive.
 */
export interface OpenItem {
  kind: 'payable' | 'receivable' | 'staff advance';
  account: string;
  currency: string;
  open: bigint;
  booked: bigint;
}
/** How it is settled: `amount` of the item's currency for `bank` minor units of the ledger's (the day's rate, or what the bank took). */
export interface Settlement {
  amount: bigint;
  bank: bigint;
  bankAccount: string;
  exchangeAccount: string;
  ledgerCurrency: string;
  text: string;
}
export interface SettledItem {
  rows: RowFigures[];
  /** What stays open, in both currencies; 0 and 0 after the last part. */
  left: { open: bigint; booked: bigint };
}

/**
 * Pays a payable, collects a receivable or takes back an advance: the account moves by its booked ledger value (in
 * proportion for a part, all that is left with the last), the bank by what it moved, the difference is an exchange
 * difference. More than what is open, or nothing, throws a RangeError. Example: a payable of 100.00 USD booked at 90.01
 * EUR, paid with 91.00 → exchange loss 0.99.
 */
export function settleOpenItem(item: OpenItem, settlement: Settlement): SettledItem {
  const { amount, bank } = settlement;
  if (amount <= 0n || amount > item.open) throw new RangeError(`${amount} cannot be settled of ${item.open} open`);
  const booked = roundHalfAway(item.booked * amount, item.open);
  const sign = item.kind === 'payable' ? 1n : -1n;
  const { bankAccount, exchangeAccount, ledgerCurrency, text } = settlement;
  const moves = { kind: item.kind, of: null };
  const rows = balanced([
    row(item.account, sign * booked, { currency: item.currency, amount: sign * amount, text, moves }),
    row(bankAccount, -sign * bank, { currency: ledgerCurrency, amount: -sign * bank, text }),
    row(exchangeAccount, sign * (bank - booked), {
      currency: ledgerCurrency,
      amount: sign * (bank - booked),
      text: `Exchange difference: ${text}`,
    }),
  ]);
  return { rows, left: { open: item.open - amount, booked: item.booked - booked } };
}

/**
 * What of a payment goes to the person when receivables of the same currency are netted from it first, oldest first.
 * (100n, [30n, 90n]) → paid 0n, netted 30n and 70n; (100n, [30n]) → paid 70n.
 */
export function netReceivables(payable: bigint, receivables: readonly bigint[]): { paid: bigint; netted: bigint[] } {
  let left = magnitude(payable);
  const netted = receivables.map((open) => {
    const part = open < left ? open : left;
    left -= part;
    return part;
  });
  return { paid: left, netted };
}
