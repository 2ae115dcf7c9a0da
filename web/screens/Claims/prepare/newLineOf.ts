import type { Line } from '../../../../core/documents/case.schema.ts';
import type { NewLine } from '../../../api/drafts.ts';

/** What was written on a line, for writing it again: a copy has no receipt, no charge and no items. */
export function newLineOf(line: Line): NewLine {
  const { date, amount, currency, merchant, description, country, quantity, coding, tax, split, paidBy, items } = line;
  const category = line.category ?? items?.find((i) => i.category)?.category ?? '';
  return {
    date,
    amount: { amount, currency },
    category,
    merchant: merchant ?? null,
    description: description ?? null,
    country: country ?? null,
    paidBy: paidBy === 'central' ? 'central' : 'own',
    quantity: quantity ?? null,
    coding: coding ?? {},
    tax: tax ?? [],
    split: split ?? null,
  };
}
