import { describe, expect, it } from 'vitest';
import { line, makeCase, valid } from '../../test/fixtures/caseBuilder.ts';
import { assess } from '../assess/assess.ts';
import { budgetUse, type Budget } from './budgetUse.ts';

const budget = (id: string, code: string, category: string | null = null): Budget => ({
  id,
  dimension: 'grant',
  code,
  category,
});
const uses = (lines: ReturnType<typeof line>[], budgets: Budget[]) => {
  const document = valid(makeCase({ lines }));
  return budgetUse(assess(document), document.claim, budgets, 'EUR').map((u) => [u.id, u.amount]);
};

describe('what a claim charges to budgets', () => {
  it('counts each share for the budget of its code, and for that of its category there', () => {
    const split = {
      by: 'percent' as const,
      shares: [
        { coding: { grant: 'G-1' }, value: '60' },
        { coding: { grant: 'G-2' }, value: 'rest' },
      ],
    };
    const budgets = [budget('a', 'G-1'), budget('b', 'G-1', 'meal'), budget('c', 'G-2'), budget('d', 'G-3')];
    const lines = [line({ split }), line({ id: '2', category: 'meal', amount: '10.00', coding: { grant: 'G-1' } })];
    expect(uses(lines, budgets)).toEqual([
      ['a', 7000n],
      ['b', 1000n],
      ['c', 4000n],
    ]);
  });
  it('gives back what is refunded, and leaves private parts out', () => {
    expect(uses([line({ amount: '-20.00', coding: { grant: 'G-1' } })], [budget('a', 'G-1')])).toEqual([['a', -2000n]]);
    expect(uses([line({ paidBy: 'card', personal: true })], [budget('a', 'G-1')])).toEqual([]);
    expect(uses([], [budget('a', 'G-1')])).toEqual([]);
  });
});
