import type { Entity } from '../documents/case.schema.ts';
import type { RowFigures } from '../figures/figures.types.ts';
import { balanced, row } from './row.ts';

/** The advance paid out: `amount` minor units of `currency`. */
export interface PaidAdvance {
  id: string;
  currency: string;
  amount: bigint;
}

/**
 * The journal of an advance paid out: Dr staff advances, Cr bank, both at what the bank took (`bank`, ledger minor units,
 * more than 0). An entity without a bank account throws a RangeError. Example: 60,000.00 KES for 428.57 EUR → Dr 1310
 * 428.57 (KES 60,000.00), Cr 1010 428.57.
 */
export function payOut(
  advance: PaidAdvance,
  { bank, ledgerCurrency, accounts }: { bank: bigint; ledgerCurrency: string; accounts: Entity['accounts'] },
): RowFigures[] {
  if (!accounts.bank) throw new RangeError('the entity has no bank account');
  const text = `Advance ${advance.id} paid out`;
  const { currency, amount } = advance;
  return balanced([
    row(accounts.staffAdvances, bank, { currency, amount, text, moves: { kind: 'staff advance', of: advance.id } }),
    row(accounts.bank, -bank, { currency: ledgerCurrency, amount: -bank, text }),
  ]);
}
