import { describe, expect, it } from 'vitest';
import { nextRecurrence, recurrenceDays } from './recurrence.ts';

const many = { from: '0001-01-01', to: '9999-12-31' };

describe('what comes again', () => {
  it('counts weeks over the end of a year', () => {
    const days = recurrenceDays('2026-12-21', 'week', { ...many, most: 3 });
    expect(days).toEqual(['2026-12-21', '2026-12-28', '2027-01-04']);
    expect(nextRecurrence('2026-12-28', 'fortnight')).toBe('2027-01-11');
  });
  it('counts months from the first day, on the last one where there is none of that number', () => {
    const from31 = recurrenceDays('2027-01-31', 'month', { ...many, most: 14 });
    expect([1, 2, 3, 12, 13].map((n) => from31[n])).toEqual([
      '2027-02-28',
      '2027-03-31',
      '2027-04-30',
      '2028-01-31',
      '2028-02-29',
    ]);
    const quarters = recurrenceDays('2026-11-30', 'quarter', { ...many, most: 3 });
    expect(quarters).toEqual(['2026-11-30', '2027-02-28', '2027-05-30']);
    expect(nextRecurrence('2026-12-15', 'month')).toBe('2027-01-15');
  });
  it('gives the days of a span, both ends included, and no more than are wanted', () => {
    const span = { from: '2026-11-09', to: '2026-11-23', most: 10 };
    expect(recurrenceDays('2026-11-02', 'week', span)).toEqual(['2026-11-09', '2026-11-16', '2026-11-23']);
    expect(recurrenceDays('2026-11-02', 'week', { ...span, most: 1 })).toEqual(['2026-11-09']);
    expect(recurrenceDays('2026-11-02', 'week', { ...span, to: '2026-11-08' })).toEqual([]);
  });
});
