import { addDays } from '../core/numbers/isoDate.ts';
import type { Line } from '../core/documents/case.schema.ts';
import type { NewLine } from './drafts.ts';

/** What was written on a line, for writing it again: a copy has no receipt and no charge. */
export function newLineOf(line: Line): NewLine {
  const { date, amount, currency, category, merchant, description, country } = line;
  const { quantity, coding, tax, split, paidBy, items, nights, attendees, fields, stay, estimate, rebill } = line;
  const { before: _, ...journey } = line.journey ?? { before: null };
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
    nights: nights ?? null,
    attendees: attendees ?? null,
    fields: fields ?? {},
    journey: 'vehicle' in journey ? journey : null,
    stay: stay ?? null,
    estimate: estimate ?? null,
    rebill: rebill ?? null,
    ...(items?.length ? { items } : {}),
  };
}

/** Whether writing a line again gives all of it, so that taking it off can be undone: nothing came from elsewhere. */
export const isCopyWhole = ({ rate }: Line): boolean => (rate?.kind ?? 'reference') === 'reference';

/** A line as many days later (earlier when negative), the days of its stay with it. */
export function movedBy(line: NewLine, days: number): NewLine {
  const moved = (date: string) => addDays(date, days);
  const stay = line.stay?.map((day) => ({ ...day, date: moved(day.date) }));
  return { ...line, date: moved(line.date), ...(stay ? { stay } : {}) };
}
