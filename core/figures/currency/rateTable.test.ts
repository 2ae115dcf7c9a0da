import { describe, expect, it } from 'vitest';
import { compare, fraction } from '../../numbers/fraction.ts';
import { rateTable } from './rateTable.ts';

const quote = (from: string, to: string, date: string, rate: string) => ({ from, to, date, rate });
const is = (value: { n: bigint; d: bigint } | undefined, n: bigint, d: bigint) =>
  value !== undefined && compare(value, fraction(n, d)) === 0;

describe('rates of a date', () => {
  const table = rateTable({
    pivot: 'EUR',
    maxRateAge: 7,
    rates: [
      quote('EUR', 'USD', '2026-03-02', '1.08'),
      quote('EUR', 'USD', '2026-03-05', '1.10'),
      quote('USD', 'EUR', '2026-03-01', '0.93'),
      quote('EUR', 'JPY', '2026-03-03', '163.4'),
      quote('GBP', 'EUR', '2026-03-04', '1.19'),
    ],
  });

  it('are the newest not after it and not older than a week', () => {
    expect(is(table.find('EUR', 'USD', '2026-03-04')?.value, 108n, 100n)).toBe(true);
    expect(is(table.find('EUR', 'USD', '2026-03-12')?.value, 110n, 100n)).toBe(true);
    expect(table.find('EUR', 'USD', '2026-03-13')).toBeNull();
    expect(table.find('EUR', 'USD', '2026-02-28')).toBeNull();
  });
  it('prefer a direct quote to a newer reciprocal', () => {
    expect(is(table.find('USD', 'EUR', '2026-03-06')?.value, 93n, 100n)).toBe(true);
  });
  it('turn a quote round exactly', () => {
    expect(is(table.find('JPY', 'EUR', '2026-03-03')?.value, 10n, 1634n)).toBe(true);
    expect(table.find('JPY', 'EUR', '2026-03-03')?.legs).toMatchObject([
      { reciprocal: true, quote: { date: '2026-03-03' } },
    ]);
  });
  it('go over the pivot, each leg with its own date', () => {
    const cross = table.find('GBP', 'JPY', '2026-03-06');
    expect(is(cross?.value, 119n * 1634n, 1000n)).toBe(true);
    expect(cross?.legs.map((l) => l.quote.date)).toEqual(['2026-03-04', '2026-03-03']);
  });
  it('are 1 within one currency, and missing where a leg is', () => {
    expect(table.find('CHF', 'CHF', '1999-01-01')?.legs).toEqual([]);
    expect(table.find('CHF', 'USD', '2026-03-04')).toBeNull();
  });
});
