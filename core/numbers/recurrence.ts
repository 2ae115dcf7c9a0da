import { addDays, daysBetween } from './isoDate.ts';

export const RECURRENCES = ['week', 'fortnight', 'month', 'quarter'] as const;
/** How often something comes again. */
export type Recurrence = (typeof RECURRENCES)[number];

/** At most so many days from one time to the next. */
const DAYS: Record<Recurrence, number> = { week: 7, fortnight: 14, month: 31, quarter: 92 };
const WEEKS: Partial<Record<Recurrence, number>> = { week: 1, fortnight: 2 };
const MONTHS: Partial<Record<Recurrence, number>> = { month: 1, quarter: 3 };

/**
 * The n-th time something comes again after its first day (0 is the first day itself). A month counts from the first day, so
 * what began on the 31st comes on the last day of shorter months and on the 31st again after them. Example: monthly from
 * 2026-01-31 → 2026-02-28, 2026-03-31; every fortnight from 2026-12-28 → 2027-01-11.
 */
export function recurrenceDay(first: string, every: Recurrence, n: number): string {
  const weeks = WEEKS[every];
  if (weeks !== undefined) return addDays(first, 7 * weeks * n);
  const [year, month, day] = first.split('-').map(Number) as [number, number, number];
  const months = year * 12 + (month - 1) + MONTHS[every]! * n;
  const start = `${String(Math.floor(months / 12)).padStart(4, '0')}-${String((months % 12) + 1).padStart(2, '0')}`;
  const last = Number(addDays(`${nextMonth(months)}-01`, -1).slice(8));
  return `${start}-${String(Math.min(day, last)).padStart(2, '0')}`;
}

const nextMonth = (months: number): string =>
  `${String(Math.floor((months + 1) / 12)).padStart(4, '0')}-${String(((months + 1) % 12) + 1).padStart(2, '0')}`;

/**
 * The days from `from` to `to`, both included, on which something comes again; at most `most`. Example: weekly since
 * 2026-11-02, from 2026-11-03 to 2026-11-20 → 2026-11-09, 2026-11-16; none when `to` is before.
 */
export function recurrenceDays(
  first: string,
  every: Recurrence,
  { from, to, most }: { from: string; to: string; most: number },
): string[] {
  const days: string[] = [];
  // what began long ago is not counted through from its beginning
  const before = from > first ? Math.floor(daysBetween(first, from) / DAYS[every]) : 0;
  for (let n = before; days.length < most; n += 1) {
    const day = recurrenceDay(first, every, n);
    if (day > to) break;
    if (day >= from) days.push(day);
  }
  return days;
}
