import { isIsoDate } from './isoDate.ts';

/** The order in which day, month and year are written. */
export type DateOrder = 'dmy' | 'mdy' | 'ymd';

/**
 * A written date as ISO 8601, or null when it is none or does not exist (31.02.2026). Two-digit years are of this
 * century. ("3.2.26", "dmy") → "2026-02-03".
 */
export function readLocalDate(text: string, order: DateOrder): string | null {
  const trimmed = text.trim().replace(/[T ]\d{1,2}:\d{2}.*$/, '');
  const match = /^(\d{1,4})[./\- ](\d{1,2})[./\- ](\d{1,4})$/.exec(trimmed) ?? /^(\d{4})(\d{2})(\d{2})$/.exec(trimmed);
  if (!match) return null;
  const [, a = '', b = '', c = ''] = match;
  if (order === 'ymd' && c.length === 4) return null;
  const year = a.length === 4 ? a : order === 'ymd' ? a : c;
  const rest = year === a ? [b, c] : order === 'mdy' ? [a, b] : [b, a];
  const full = year.length === 2 ? `20${year}` : year;
  const iso = `${full}-${rest[0]!.padStart(2, '0')}-${rest[1]!.padStart(2, '0')}`;
  return isIsoDate(iso) ? iso : null;
}

/**
 * The orders in which all of the dates exist; the caller chooses where more than one is left. ["03/13/2026"] →
 * ["mdy"].
 */
export function possibleOrders(texts: readonly string[]): DateOrder[] {
  const given = texts.filter((t) => t.trim() !== '');
  return (['dmy', 'mdy', 'ymd'] as const).filter(
    (order) => given.length > 0 && given.every((t) => readLocalDate(t, order) !== null),
  );
}
