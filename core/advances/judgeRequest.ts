import { referenceConverter } from '../figures/currency/converter.ts';
import type { AdvanceBook, AdvanceProblem, OpenAdvance, WantedAdvance } from './advances.types.ts';
import type { AdvanceRule } from './advance.schema.ts';
import { fromMinor, toMinor } from '../numbers/amount.ts';

/**
 * What stands against an advance. Contractors are paid as suppliers and have none, whatever the reason; the rules of the book
 * ask for one. Amounts convert by the published rate of the day; one that cannot be converted counts as above every limit.
 * Example: 500.00 EUR wanted, 1,600.00 open, at most 2,000.00 → "With this, 2,100.00 EUR would be open of at most 2,000.00."
 */
export function judgeRequest(wanted: WantedAdvance, book: AdvanceBook): AdvanceProblem[] {
  if (wanted.person.kind === 'contractor')
    return [{ severity: 'stop', rule: null, says: 'Contractors are paid as suppliers and have no advances.' }];
  const rules = book.rules.filter((r) => !r.entities || r.entities.includes(wanted.entity));
  return rules.flatMap(({ id, is }) =>
    saysOf(is, wanted, book).map((says) => ({ severity: 'ask' as const, rule: id, says })),
  );
}

function saysOf(is: AdvanceRule['is'], wanted: WantedAdvance, book: AdvanceBook): string[] {
  switch (is.rule) {
    case 'most open':
      return tooMuchOpen(is, wanted, book);
    case 'none while overdue':
      return book.others
        .filter((a) => isOverdue(a, wanted.on))
        .map((a) => `Advance ${a.id} was to be accounted for by ${a.dueBy}.`);
    default:
      return is satisfies never;
  }
}

/** Overdue from the day after the one by which it was to be accounted for. Due on the 10th → on the 10th false, on the 11th true. */
export const isOverdue = ({ open, dueBy }: Pick<OpenAdvance, 'open' | 'dueBy'>, on: string): boolean =>
  open > 0n && dueBy !== null && dueBy < on;

function tooMuchOpen(
  { amount, currency }: { amount: string; currency: string },
  wanted: WantedAdvance,
  { others, rates }: AdvanceBook,
): string[] {
  const all = [{ currency: wanted.currency, open: wanted.amount }, ...others];
  const parts = all.map((a) => referenceConverter(rates, a.currency, currency, wanted.on).convert(a.open));
  const limit = toMinor(amount, currency);
  if (parts.includes(null))
    return [`There is no rate to compare what would be open with the ${amount} ${currency} allowed.`];
  const open = parts.reduce<bigint>((sum, part) => sum + part!, 0n);
  if (open <= limit) return [];
  return [`With this, ${fromMinor(open, currency)} ${currency} would be open of at most ${amount}.`];
}
