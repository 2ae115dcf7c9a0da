import { describe, expect, it } from 'vitest';
import { isTimeZone, localDate } from './localDate.ts';

describe('the date of a moment', () => {
  it('is that of the place', () => {
    const at = new Date('2026-03-01T23:30:00Z');
    expect(
      ['Asia/Tokyo', 'Europe/Dublin', 'America/New_York', 'Pacific/Kiritimati'].map((z) => localDate(at, z)),
    ).toEqual(['2026-03-02', '2026-03-01', '2026-03-01', '2026-03-02']);
    expect(localDate(new Date('2026-06-30T23:30:00Z'), 'Europe/Dublin')).toBe('2026-07-01');
    expect(() => localDate(at, 'Mars/Olympus')).toThrow(RangeError);
  });
  it('needs a zone there is', () => {
    expect(['Asia/Bahrain', 'UTC', '', 'Mars/Olympus'].map(isTimeZone)).toEqual([true, true, false, false]);
  });
});
