import rrule from 'rrule';
import { describe, expect, it } from 'vitest';
import { recurrenceDays, type Recurrence } from '../../core/numbers/recurrence.ts';

/**
 * Source: RFC 5545, §3.3.10, by the registry package rrule 2. A month that has no day of that number takes its last one,
 * which a rule says as the last (BYSETPOS=-1) of the days from the 28th up to it.
 */
const RULES: Record<Recurrence, (day: number) => string> = {
  week: () => 'FREQ=WEEKLY',
  fortnight: () => 'FREQ=WEEKLY;INTERVAL=2',
  month: (day) => `FREQ=MONTHLY;${lastUpTo(day)}`,
  quarter: (day) => `FREQ=MONTHLY;INTERVAL=3;${lastUpTo(day)}`,
};
const lastUpTo = (day: number) =>
  day <= 28 ? `BYMONTHDAY=${day}` : `BYMONTHDAY=${[28, 29, 30, 31].filter((d) => d <= day).join(',')};BYSETPOS=-1`;

const COUNT = 30;
const byRule = (first: string, every: Recurrence): string[] => {
  const rule = RULES[every](Number(first.slice(8)));
  const start = `DTSTART:${first.replaceAll('-', '')}T000000Z`;
  return rrule
    .rrulestr(`${start}\nRRULE:${rule};COUNT=${COUNT}`)
    .all()
    .map((d) => d.toISOString().slice(0, 10));
};

const FIRSTS = ['2026-01-31', '2027-12-30', '2028-02-29', '2026-11-01', '2026-08-29', '2026-12-28'];
const CASES = FIRSTS.flatMap((first) => (Object.keys(RULES) as Recurrence[]).map((every) => [every, first] as const));

describe('recurrences by RFC 5545', () => {
  it.each(CASES)('every %s from %s', (every, first) => {
    const ours = recurrenceDays(first, every, { from: first, to: '9999-12-31', most: COUNT });
    expect(ours).toEqual(byRule(first, every));
  });
});
