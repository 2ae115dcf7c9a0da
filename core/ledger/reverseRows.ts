/** The sides of a journal row, in any unit. */
export interface Sides<Amount> {
  debit: Amount;
  credit: Amount;
  amount: bigint;
}

/**
 * The rows of a reversal: the same rows in the same order with their sides exchanged and the transaction amount
 * negated. {debit: 5, credit: 0, amount: 5n} → {debit: 0, credit: 5, amount: -5n}.
 */
export function reverseRows<Amount, Row extends Sides<Amount>>(rows: readonly Row[]): Row[] {
  return rows.map((row) => ({ ...row, debit: row.credit, credit: row.debit, amount: -row.amount }));
}
