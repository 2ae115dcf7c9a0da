import { describe, expect, it } from 'vitest';
import { addDays } from '../../numbers/isoDate.ts';
import { cycleDays, cycleOf } from './cardCycle.ts';

describe('the cycle of a card', () => {
  it.each([
    ['2026-03', null, '2026-03-01', '2026-03-31'],
    ['2026-03', 24, '2026-02-25', '2026-03-24'],
    ['2026-01', 5, '2025-12-06', '2026-01-05'],
    ['2026-02', 30, '2026-01-31', '2026-02-28'],
    ['2024-02', 30, '2024-01-31', '2024-02-29'],
    ['2026-03', 30, '2026-03-01', '2026-03-30'],
    ['2026-04', 31, '2026-04-01', '2026-04-30'],
  ] as const)('%s, closing on %s, runs from %s to %s', (month, closesOn, from, to) => {
    expect(cycleDays(month, closesOn)).toEqual({ from, to });
  });

  it.each([null, 1, 15, 28, 29, 30, 31])('every day belongs to one month, whose days hold it (closing on %s)', (on) => {
    for (let i = 0, day = '2027-12-20'; i < 450; i += 1, day = addDays(day, 1)) {
      const { from, to } = cycleDays(cycleOf(day, on), on);
      expect(from <= day && day <= to).toBe(true);
    }
  });
});
