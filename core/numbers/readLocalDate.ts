import { isIsoDate } from './isoDate.ts';
import { monthOf } from './monthOf.ts';

/** The order in which day, month and year are written. */
export type DateOrder = 'dmy' | 'mdy' | 'ymd';

/**
 * A written date as ISO 8601, or null when it is none or does not exist (31.02.2026). Two-digit years are of this
 * century; a month that is named stands where it likes. ("3.2.26", "dmy") → "2026-02-03"; ("2. März 2026", "mdy") →
 * "2026-03-02".
 */
export function readLocalDate(text: string, order: DateOrder): string | null {
  const trimmed = text.trim().replace(/[T ]\d{1,2}:\d{2}.*$/, '');
  const named = namedDate(trimmed);
  if (named) return isIsoDate(named) ? named : null;
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

/** A date whose month is a word, "2-Mar-26", "Mar 2, 2026", as it would be written in ISO 8601; null when it is none. */
export function namedDate(text: string): string | null {
  const parts = text.match(/\p{L}+|\d+/gu) ?? [];
  if (parts.length !== 3 || !/^[\p{L}\d.,/\- ]+$/u.test(text)) return null;
  const words = parts.filter((p) => !/\d/.test(p));
  const [first = '', second = ''] = parts.filter((p) => /\d/.test(p));
  const month = words.length === 1 ? monthOf(words[0]!.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '')) : null;
  const [year, day] = first.length === 4 ? [first, second] : [second, first];
  if (month === null || day.length > 2 || ![2, 4].includes(year.length)) return null;
  const full = year.length === 2 ? `20${year}` : year;
  return `${full}-${String(month).padStart(2, '0')}-${day.padStart(2, '0')}`;
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
