import { describe, expect, it } from 'vitest';
import { line } from '../../../test/fixtures/caseBuilder.ts';
import { rateScope } from './rateScope.ts';

describe('the quotes a claim can need', () => {
  const claim = { currency: 'EUR', submittedOn: '2026-04-10', lines: [line({ date: '2026-03-02', currency: 'USD' })] };
  it('reach from a week before its first date to its last, whichever that is', () => {
    expect(rateScope(claim, ['EUR'], '2026-03-31')).toMatchObject({ from: '2026-02-23', to: '2026-04-10' });
    expect(rateScope(claim, ['EUR'], '2026-05-31').to).toBe('2026-05-31');
    expect(rateScope({ ...claim, lines: [] }, ['EUR'], '2026-03-31')).toMatchObject({ from: '2026-03-24' });
  });
  it('are between all its currencies and the pivot, and none where there is one currency', () => {
    const settled = { kind: 'card' as const, settled: { amount: '83.40', currency: 'GBP' } };
    const card = line({ paidBy: 'card', currency: 'USD', rate: settled });
    expect(rateScope({ ...claim, lines: [card] }, ['NOK', 'KES'], '2026-03-31').currencies).toEqual([
      'EUR',
      'USD',
      'GBP',
      'NOK',
      'KES',
    ]);
    expect(rateScope({ ...claim, currency: 'JPY', lines: [] }, ['NOK'], '2026-03-31').currencies).toContain('EUR');
    expect(rateScope({ ...claim, lines: [line()] }, ['EUR'], '2026-03-31').currencies).toEqual([]);
  });
});
