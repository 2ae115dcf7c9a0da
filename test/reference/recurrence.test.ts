import { addMonths, addWeeks } from 'date-fns';
import { describe, expect, it } from 'vitest';
import { RECURRENCES, type Recurrence } from '../../contract/drafts.ts';
import { recurrenceDays } from '../../server/features/claims/recurrence.ts';

/**
 * Source: the registry package date-fns 4, whose addMonths counts from the first day and takes the last one of a month that has
 * no day of that number.
 */
const NEXT: Record<Recurrence, (first: Date, n: number) => Date> = {
  week: addWeeks,
  fortnight: (first, n) => addWeeks(first, 2 * n),
  month: addMonths,
  quarter: (first, n) => addMonths(first, 3 * n),
};
const written = (day: Date): string =>
  [day.getFullYear(), day.getMonth() + 1, day.getDate()].map((n) => String(n).padStart(2, '0')).join('-');

const COUNT = 30;
const counted = (first: string, every: Recurrence): string[] =>
  Array.from({ length: COUNT }, (_, n) => written(NEXT[every](new Date(`${first}T12:00:00`), n)));

const FIRSTS = ['2026-01-31', '2027-12-30', '2028-02-29', '2026-11-01', '2026-08-29', '2026-12-28'];
const CASES = FIRSTS.flatMap((first) => RECURRENCES.map((every) => [every, first] as const));

describe('recurrences', () => {
  it.each(CASES)('every %s from %s', (every, first) => {
    const ours = recurrenceDays(first, every, { from: first, to: '9999-12-31', most: COUNT });
    expect(ours).toEqual(counted(first, every));
  });
});
