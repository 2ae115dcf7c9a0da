import { describe, expect, it } from 'vitest';
import { scoreEstimates, type OpenEstimate } from './scoreEstimate.ts';

const estimate = (id: string, fields: Partial<OpenEstimate> = {}): OpenEstimate => ({
  id,
  category: 'meal',
  amount: '40.00',
  actual: '0.00',
  ...fields,
});
const score = (amount: string | null, ...estimates: OpenEstimate[]) =>
  scoreEstimates({ category: 'meal', amount }, estimates, 'EUR').map((s) => [s.id, s.score]);

describe('an estimate for a line', () => {
  it('is of its category, and likelier alone and where the line fits into what is left', () => {
    expect(score('40.00', estimate('1'), estimate('2', { category: 'air' }))).toEqual([['1', 100]]);
    expect(score('12.01', estimate('1', { actual: '28.00' }))).toEqual([['1', 80]]);
    expect(score('12.00', estimate('1', { actual: '28.01' }), estimate('2'))).toEqual([
      ['2', 80],
      ['1', 60],
    ]);
  });
  it('is not proposed for another category, and does not fit what is not known', () => {
    expect(score('1.00', estimate('1', { category: null }))).toEqual([]);
    expect(score(null, estimate('1'))).toEqual([['1', 80]]);
    expect(scoreEstimates({ category: null, amount: '1.00' }, [estimate('1', { category: null })], 'EUR')).toEqual([]);
  });
});
