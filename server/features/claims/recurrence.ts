import rrule from 'rrule';
import type { Recurrence } from '../../../contract/drafts.ts';

const { Frequency, RRule } = rrule;
const FREQUENCIES = {
  week: { freq: Frequency.WEEKLY, interval: 1 },
  fortnight: { freq: Frequency.WEEKLY, interval: 2 },
  month: { freq: Frequency.MONTHLY, interval: 1 },
  quarter: { freq: Frequency.MONTHLY, interval: 3 },
} as const;
/** Every month has days up to this one. */
const IN_EVERY_MONTH = 28;

/** The rule (RFC 5545) of what comes again from a day on; in a month without a day of that number, on its last one. */
function ruleOf(first: string, every: Recurrence, most: number) {
  const day = Number(first.slice(8));
  const late = Array.from({ length: Math.max(0, day - IN_EVERY_MONTH + 1) }, (_, i) => IN_EVERY_MONTH + i);
  const { freq, interval } = FREQUENCIES[every];
  const lastOfThose = freq === Frequency.MONTHLY && late.length > 1 ? { bymonthday: late, bysetpos: -1 } : {};
  return new RRule({ freq, interval, dtstart: new Date(`${first}T00:00:00Z`), count: most, ...lastOfThose });
}
const dayOf = (date: Date): string => date.toISOString().slice(0, 10);

/** Once a week for over a hundred years. */
const MOST_TIMES = 6000;

/**
 * The days from `from` to `to`, both included, on which something comes again that began on `first`; at most `most`. A month
 * counts from the first day, so what began on the 31st comes on the last day of shorter months and on the 31st again after them.
 * Example: weekly since 2026-11-02, from 2026-11-03 to 2026-11-20 → 2026-11-09, 2026-11-16; none when `to` is before.
 */
export function recurrenceDays(
  first: string,
  every: Recurrence,
  { from, to, most }: { from: string; to: string; most: number },
): string[] {
  const days: string[] = [];
  const rule = ruleOf(first, every, MOST_TIMES);
  const take = (date: Date): boolean => days.length < most && days.push(dayOf(date)) < most;
  rule.between(new Date(`${from}T00:00:00Z`), new Date(`${to}T00:00:00Z`), true, take);
  return days;
}

/** The next time after a day on which something comes. Example: monthly, 2026-01-31 → 2026-02-28. */
export const nextRecurrence = (first: string, every: Recurrence): string => dayOf(ruleOf(first, every, 2).all()[1]!);
