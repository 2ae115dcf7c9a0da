import { describe, expect, it } from 'vitest';
import { possibleOrders, readLocalDate } from './readLocalDate.ts';
import { readLocalAmount } from './readLocalAmount.ts';

describe('a written amount', () => {
  const good: [string, string, '.' | ',', string][] = [
    ['1.234,56', 'EUR', ',', '1234.56'],
    ['1,234.56', 'EUR', '.', '1234.56'],
    ['1 234,5', 'EUR', ',', '1234.50'],
    ["1'234.00", 'CHF', '.', '1234.00'],
    ['-12', 'EUR', ',', '-12.00'],
    ['12.50-', 'EUR', '.', '-12.50'],
    ['(12.50)', 'EUR', '.', '-12.50'],
    ['+3', 'JPY', '.', '3'],
    ['1,250', 'JPY', '.', '1250'],
    ['1.250', 'BHD', '.', '1.250'],
    ['0', 'EUR', '.', '0.00'],
  ];
  it.each(good)('%s %s with "%s" is %s', (text, currency, mark, amount) => {
    expect(readLocalAmount(text, currency, mark)).toEqual({ ok: true, amount });
  });

  const bad: [string, string][] = [
    ['1e9', 'is not an amount'],
    ['-0', 'is a zero with a sign'],
    ['１２３', 'other digits than 0 to 9'],
    ['1.234.5', 'is not an amount'],
    ['1,234.56', 'does not have a comma before its decimals'],
    ['12,345', 'has more decimals than EUR'],
    ['', 'there is no amount'],
    ['twelve', 'is not an amount'],
    ['99999999999999', 'is too large'],
    ['--5', 'is not an amount'],
  ];
  it.each(bad)('"%s" is refused: %s', (text, problem) => {
    const read = readLocalAmount(text, 'EUR', ',');
    expect(read.ok ? read.amount : read.problem).toContain(problem);
  });
});

describe('a written date', () => {
  it('is read in the order it is written in', () => {
    expect(readLocalDate('05/03/2026', 'dmy')).toBe('2026-03-05');
    expect(readLocalDate('05/03/2026', 'mdy')).toBe('2026-05-03');
    expect(readLocalDate('26-3-5', 'ymd')).toBe('2026-03-05');
    expect(readLocalDate('20260305', 'dmy')).toBe('2026-03-05');
    expect(readLocalDate('2026-03-05T10:15:00', 'dmy')).toBe('2026-03-05');
  });

  it('does not exist on 31 February, nor in words', () => {
    expect(readLocalDate('31.02.2026', 'dmy')).toBeNull();
    expect(readLocalDate('yesterday', 'dmy')).toBeNull();
  });

  it('tells its order when a day is above twelve', () => {
    expect(possibleOrders(['05/03/2026', '25/03/2026'])).toEqual(['dmy']);
    expect(possibleOrders(['05/03/2026'])).toEqual(['dmy', 'mdy']);
    expect(possibleOrders(['2026-03-25'])).toContain('ymd');
    expect(possibleOrders([])).toEqual([]);
  });
});
