import { describe, expect, it } from 'vitest';
import { leftOnReceipt, paperParts } from './paperParts.ts';

const items = (...rows: [string, string][]) => rows.map(([text, amount]) => ({ text, amount, spot: null }));
const lineOf = (id: string, amount: string, currency = 'EUR') => ({ id, amount, currency, items: null });
const whose = (...args: Parameters<typeof paperParts>) => paperParts(...args).map((p) => p.line);
const paper = items(['Soup', '8.00'], ['Pie', '12.00'], ['Beer', '6.00'], ['Beer', '6.00']);

describe('rows of a paper', () => {
  it('are on the line of their amount, each once, and else on none', () => {
    expect(whose(paper, [lineOf('1', '12.00'), lineOf('2', '6.00')], 'EUR')).toEqual([null, '1', '2', null]);
  });

  it('are on one line together where they follow each other and come to it', () => {
    expect(whose(paper, [lineOf('1', '20.00'), lineOf('2', '12.00')], 'EUR')).toEqual([null, '2', null, null]);
    expect(whose(paper, [lineOf('1', '20.00'), lineOf('2', '12.00')].slice(0, 1), 'EUR')).toEqual([
      '1',
      '1',
      null,
      null,
    ]);
    expect(whose(paper, [lineOf('1', '20.00'), lineOf('2', '6.00')], 'EUR')).toEqual(['1', '1', '2', null]);
  });

  it('are found for the items of a line one by one', () => {
    const split = { ...lineOf('1', '14.00'), items: [{ amount: '8.00' }, { amount: '6.00' }] as never };
    expect(whose(paper, [split], 'EUR')).toEqual(['1', null, '1', null]);
  });

  it('are nobody’s for lines in another currency', () => {
    expect(whose(paper, [lineOf('1', '12.00', 'GBP')], 'EUR')).toEqual([null, null, null, null]);
  });
});

describe('what of a receipt is on no line', () => {
  it('is its total less its lines, beyond it too, and nothing where the two cannot be compared', () => {
    const left = (...lines: [string, string?][]) =>
      leftOnReceipt(
        { amount: '32.00', currency: 'EUR' },
        lines.map(([amount, currency], i) => lineOf(String(i), amount, currency)),
      );
    expect(left(['12.00'], ['6.00'])).toBe('14.00');
    expect(left(['32.00'])).toBeNull();
    expect(left(['33.00'])).toBe('-1.00');
    expect(left(['12.00', 'GBP'])).toBeNull();
    expect(leftOnReceipt({ amount: null, currency: 'EUR' }, [])).toBeNull();
  });
});
