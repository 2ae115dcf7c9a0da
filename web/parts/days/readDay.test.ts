import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { isDayFirst, problemOfDay, readDay } from './readDay.ts';

const today = new Date(2026, 10, 28);
const read = (typed: string, dayFirst = true) => readDay(typed, today, dayFirst);

describe('a day that is typed', () => {
  it('is read in any usual order', () => {
    for (const typed of [
      ...[
        '2026-11-26',
        '2026/11/26',
        '2026.11.26',
        '20261126',
        '26112026',
        '11262026',
        ' 26/11/2026 ',
        '26.11.2026',
        '26-11-26',
        '26.11.26',
      ],
      ...[
        '26 Nov 2026',
        '26 november 2026',
        'Nov 26, 2026',
        'November 26 2026',
        '26th Nov 2026',
        '26 nov',
        '26.11.',
        '11/26',
      ],
    ])
      expect(read(typed), typed).toBe('2026-11-26');
  });
  it('takes day and month as the reader is used to, where both can be either', () => {
    expect(read('3/4/2026')).toBe('2026-04-03');
    expect(read('3/4/2026', false)).toBe('2026-03-04');
    expect(read('03042026')).toBe('2026-04-03');
    expect(read('03042026', false)).toBe('2026-03-04');
    expect(isDayFirst('en-GB')).toBe(true);
    expect(isDayFirst('en-US')).toBe(false);
    expect(isDayFirst('nb')).toBe(true);
  });
  it('without a year is near today', () => {
    expect(read('2 Jan')).toBe('2026-01-02');
    expect(readDay('2 Jan', new Date(2026, 11, 20), true)).toBe('2026-01-02');
    expect(readDay('30 Dec', new Date(2026, 0, 5), true)).toBe('2025-12-30');
  });
  it('is none where there is no such day', () => {
    for (const typed of ['', 'soon', '31.02.2026', '2026-13-40', '12', '1.2.3.4', '5/6/226', '0.0.2026'])
      expect(read(typed), typed).toBeNull();
  });
  it('is read again as it is written, each way', () => {
    const day = fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true });
    fc.assert(
      fc.property(day, (date) => {
        const iso = date.toISOString().slice(0, 10);
        const [y, m, d] = iso.split('-') as [string, string, string];
        const month = new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' }).format(date);
        for (const typed of [iso, `${d}.${m}.${y}`, `${Number(d)} ${month} ${y}`, `${month} ${Number(d)}, ${y}`])
          expect(read(typed)).toBe(iso);
        expect(read(`${m}/${d}/${y}`, false)).toBe(iso);
      }),
    );
  });
  it('says what is wrong with it', () => {
    expect(problemOfDay(null, {})).toContain('no day');
    expect(problemOfDay('2026-01-01', { min: '2026-01-02' })).toBe('Not before 2026-01-02.');
    expect(problemOfDay('2026-01-03', { max: '2026-01-02' })).toBe('Not after 2026-01-02.');
    expect(problemOfDay('', { min: '2026-01-02' })).toBeNull();
    expect(problemOfDay('2026-01-02', { min: '2026-01-02', max: '2026-01-02' })).toBeNull();
  });
});
