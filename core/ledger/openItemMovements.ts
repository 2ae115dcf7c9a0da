import type { OpenItemRef, RowFigures } from '../figures/figures.types.ts';
import { isWritten } from './row.ts';

/** How one journal row moves what is open on a control account: minor units of the row's currency and of the ledger's, debit − credit. */
export interface OpenItemMovement extends OpenItemRef {
  /** The row's position in its journal, from 1. */
  position: number;
  account: string;
  currency: string;
  amount: bigint;
  ledgerAmount: bigint;
}

/**
 * The movements of a journal's rows, one for each on a control account. In ledger value they add up to what those accounts move
 * by. What moves an item by nothing in the ledger's currency has no row there, and comes after them. Example: Cr payable
 * 123.00 → one movement of -12300n for its claim.
 */
export const openItemMovements = (rows: readonly RowFigures[]): OpenItemMovement[] =>
  [...rows.filter(isWritten), ...rows.filter((row) => !isWritten(row))].flatMap(
    ({ moves, account, currency, amount, debit }, index) =>
      moves ? [{ ...moves, position: index + 1, account, currency, amount, ledgerAmount: debit }] : [],
  );
