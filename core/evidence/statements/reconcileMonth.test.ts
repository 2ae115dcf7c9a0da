import { describe, expect, it } from 'vitest';
import { reconcileMonth } from './reconcileMonth.ts';

const charge = (settled: string, accounted = true) => ({ settled, accounted });
const statement = (from: string, to: string, opening: string, closing: string) => ({ from, to, opening, closing });

describe('a card’s month', () => {
  const days = [
    statement('2026-03-01', '2026-03-15', '-10.00', '-60.00'),
    statement('2026-03-16', '2026-03-31', '-60.00', '-55.00'),
  ];

  it('is proved when statements follow each other, totals agree and every charge is accounted for', () => {
    const proof = reconcileMonth('EUR', [charge('50.00'), charge('-5.00')], days);
    expect(proof).toMatchObject({
      opening: '-10.00',
      closing: '-55.00',
      spent: '45.00',
      difference: '0.00',
      problems: [],
    });
  });

  it('is not closed with a charge that is not accounted for', () => {
    const proof = reconcileMonth('EUR', [charge('50.00', false), charge('-5.00')], days);
    expect(proof.open).toEqual({ count: 1, amount: '50.00' });
    expect(proof.problems).toEqual(['1 charge is not accounted for']);
  });

  it('says by how much charges and statements differ', () => {
    expect(reconcileMonth('EUR', [charge('50.00')], days).problems).toEqual([
      'the charges differ from the statements by 5.00 EUR',
    ]);
  });

  it('sees that a statement is missing between two', () => {
    const gap = [days[0]!, statement('2026-03-20', '2026-03-31', '-61.00', '-56.00')];
    expect(reconcileMonth('EUR', [charge('50.00'), charge('-5.00')], gap).problems[0]).toContain(
      'one is missing between them',
    );
  });

  it('takes the statement of the month before those of its days', () => {
    const both = [...days, statement('2026-03-01', '2026-03-31', '-10.00', '-55.00')];
    expect(reconcileMonth('EUR', [charge('45.00')], both)).toMatchObject({ difference: '0.00', problems: [] });
  });

  it('proves nothing without a statement', () => {
    expect(reconcileMonth('JPY', [charge('500')], [])).toMatchObject({
      difference: null,
      problems: ['no statement with balances covers the month'],
    });
  });
});
