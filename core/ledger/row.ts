import type { OpenItemRef, RowFigures } from '../figures/figures.types.ts';
import type { Coding } from '../documents/case.schema.ts';

/** What a row says besides its account and ledger amount. */
export interface RowDetails {
  currency: string;
  amount: bigint;
  text: string;
  coding?: Coding;
  moves?: OpenItemRef;
}

/**
 * A journal row that belongs to no line. `debit` in ledger minor units, negative for a credit. ("6310", -500n, …) →
 * credit 5.00 in a ledger of two decimals.
 */
export function row(
  account: string,
  debit: bigint,
  { currency, amount, text, coding = {}, moves }: RowDetails,
): RowFigures {
  return {
    account,
    coding,
    debit,
    currency,
    amount,
    line: null,
    item: null,
    taxCode: null,
    text,
    ...(moves ? { moves } : {}),
  };
}

/**
 * The rows of a journal, checked to balance; a difference is a programming error. Rows of 0 are left out, but one that moves an
 * item whose part is worth less than half a minor unit of the ledger stays in the figures, since what is open of the item
 * changes. 5n, 0n, -5n → two rows; 5n, -4n → RangeError.
 */
export function balanced(rows: readonly RowFigures[]): RowFigures[] {
  const left = rows.reduce((a, r) => a + r.debit, 0n);
  if (left !== 0n) throw new Error(`the journal is out of balance by ${left}`);
  return rows.filter((r) => isWritten(r) || (r.moves !== undefined && r.amount !== 0n));
}

/** Whether a row stands in the journal as it is written and posted: rows of 0 do not. */
export const isWritten = ({ debit }: Pick<RowFigures, 'debit'>): boolean => debit !== 0n;
