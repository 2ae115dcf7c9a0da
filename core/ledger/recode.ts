import type { RowFigures } from '../figures/figures.types.ts';
import type { Coding } from '../documents/case.schema.ts';
import { balanced } from './row.ts';

/**
 * The reclassification of a posted share: its row taken back from where it was and put where it belongs, with the same
 * amounts. Claim and payment are not touched; the caller links the journal to the first and keeps the reason. Example:
 * 100.00 from project A to B → Cr A 100.00, Dr B 100.00.
 */
export function recode(posted: RowFigures, to: { account: string; coding: Coding }): RowFigures[] {
  const text = `Recoded: ${posted.text}`;
  return balanced([
    { ...posted, debit: -posted.debit, amount: -posted.amount, text },
    { ...posted, ...to, text },
  ]);
}
