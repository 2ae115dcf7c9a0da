import type { Line } from '../../../../core/documents/case.schema.ts';
import type { NewLine } from '../../../api/drafts.ts';

/** What was written on a line, for writing it again: a copy has no receipt and no charge. */
export function newLineOf(line: Line): NewLine {
  const { date, amount, currency, category, merchant, description, country } = line;
  const { quantity, coding, tax, split, paidBy, items } = line;
  return {
    date,
    amount: { amount, currency },
    category: category ?? null,
    merchant: merchant ?? null,
    description: description ?? null,
    country: country ?? null,
    paidBy: paidBy === 'central' ? 'central' : 'own',
    quantity: quantity ?? null,
    coding: coding ?? {},
    tax: tax ?? [],
    split: split ?? null,
    ...(items?.length ? { items } : {}),
  };
}

/** Whether writing a line again gives all of it, so that taking it off can be undone: nothing came from elsewhere. */
export const isCopyWhole = ({ rate, nights, attendees, fields }: Line): boolean =>
  (rate?.kind ?? 'reference') === 'reference' && !nights && !attendees && Object.keys(fields ?? {}).length === 0;
