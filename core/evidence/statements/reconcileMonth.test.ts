import { describe, expect, it } from 'vitest';
import { reconcileMonth } from './reconcileMonth.ts';

const charge = (settled: string, accounted = true) => ({ settled, accounted });
const statement = (from: string, to: string, opening: string, closing: string) => ({ from, to, opening, closing });

const MARCH = { from: '2026-03-01', to: '2026-03-31', today: '2026-04-01' };

describe('a card’s month', () => {
  const days = [
    statement('2026-03-01', '2026-03-15', '-10.00', '-60.00'),
    statement('2026-03-16', '2026-03-31', '-60.00', '-55.00'),
  ];

  it('is proved when statements follow each other, totals agree and every charge is accounted for', () => {
    const proof = reconcileMonth('EUR', [charge('50.00'), charge('-5.00')], days, MARCH);
    expect(proof).toMatchObject({
      opening: '-10.00',
      closing: '-55.00',
      spent: '45.00',
      difference: '0.00',
      problems: [],
    });
  });

  it('is not closed with a charge that is not accounted for', () => {
    const proof = reconcileMonth('EUR', [charge('50.00', false), charge('-5.00')], days, MARCH);
    expect(proof.open).toEqual({ count: 1, amount: '50.00' });
    expect(proof.problems).toEqual(['1 charge is not accounted for']);
  });

  it('says by how much charges and statements differ', () => {
    expect(reconcileMonth('EUR', [charge('50.00')], days, MARCH).problems).toEqual([
      'the charges differ from the statements by 5.00 EUR',
    ]);
  });

  it('sees that a statement is missing between two', () => {
    const gap = [days[0]!, statement('2026-03-20', '2026-03-31', '-61.00', '-56.00')];
    expect(reconcileMonth('EUR', [charge('50.00'), charge('-5.00')], gap, MARCH).problems[0]).toContain(
      'one is missing between them',
    );
  });

  it('takes the statement of the month before those of its days', () => {
    const both = [...days, statement('2026-03-01', '2026-03-31', '-10.00', '-55.00')];
    expect(reconcileMonth('EUR', [charge('45.00')], both, MARCH)).toMatchObject({ difference: '0.00', problems: [] });
  });

  it('is closed after its last day, and only when statements cover all of it', () => {
    const problems = (some: typeof days, today = '2026-04-01') =>
      reconcileMonth('EUR', [charge('45.00')], some, { ...MARCH, today }).problems;
    expect(problems(days, '2026-03-31')).toEqual(['the month ends on 2026-03-31']);
    expect(problems([statement('2026-03-03', '2026-03-29', '-10.00', '-55.00')])).toEqual([
      'no statement covers 2026-03-01 to 2026-03-02',
      'no statement covers 2026-03-30 to 2026-03-31',
    ]);
  });

  it('proves nothing without a statement', () => {
    expect(reconcileMonth('JPY', [charge('500')], [], MARCH)).toMatchObject({
      difference: null,
      problems: ['no statement with balances covers the month'],
    });
  });
});
