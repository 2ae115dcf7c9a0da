import { describe, expect, it } from 'vitest';
import { RECURRENCES, recurrenceDay, recurrenceDays } from './recurrence.ts';

const many = { from: '0000-01-01', to: '9999-12-31' };

describe('what comes again', () => {
  it('counts weeks over the end of a year', () => {
    expect(recurrenceDays('2026-12-21', 'week', { ...many, most: 3 })).toEqual([
      '2026-12-21',
      '2026-12-28',
      '2027-01-04',
    ]);
    expect(recurrenceDay('2026-12-28', 'fortnight', 1)).toBe('2027-01-11');
  });
  it('counts months from the first day, on the last one where there is none of that number', () => {
    const from31 = [1, 2, 3, 12, 13].map((n) => recurrenceDay('2027-01-31', 'month', n));
    expect(from31).toEqual(['2027-02-28', '2027-03-31', '2027-04-30', '2028-01-31', '2028-02-29']);
    expect([1, 2].map((n) => recurrenceDay('2026-11-30', 'quarter', n))).toEqual(['2027-02-28', '2027-05-30']);
    expect(recurrenceDay('2026-12-15', 'month', 1)).toBe('2027-01-15');
  });
  it('reaches far spans at once, whatever it counts by', () => {
    for (const every of RECURRENCES) {
      const all = recurrenceDays('2026-01-31', every, { ...many, most: 900 });
      const [from] = all.slice(-2);
      expect(recurrenceDays('2026-01-31', every, { from: from!, to: all.at(-1)!, most: 5 })).toEqual(all.slice(-2));
    }
  });
  it('gives the days of a span, both ends included, and no more than are wanted', () => {
    const span = { from: '2026-11-09', to: '2026-11-23', most: 10 };
    expect(recurrenceDays('2026-11-02', 'week', span)).toEqual(['2026-11-09', '2026-11-16', '2026-11-23']);
    expect(recurrenceDays('2026-11-02', 'week', { ...span, most: 1 })).toEqual(['2026-11-09']);
    expect(recurrenceDays('2026-11-02', 'week', { ...span, to: '2026-11-08' })).toEqual([]);
  });
});
