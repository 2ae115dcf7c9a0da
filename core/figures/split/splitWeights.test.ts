import { describe, expect, it } from 'vitest';
import type { Split } from '../../documents/case.schema.ts';
import { splitWeights } from './splitWeights.ts';

const split = (by: Split['by'], ...values: (string | null)[]): Split => ({
  by,
  shares: values.map((value) => ({ coding: {}, value })),
});
const weigh = (s: Split, gross = 10000n) => splitWeights(s, gross, 'EUR');

describe('weights of a split', () => {
  it('percent: sums to 100, a rest takes what is missing', () => {
    expect(weigh(split('percent', '33.3', '66.7'))).toEqual({ ok: true, weights: [333n, 667n] });
    expect(weigh(split('percent', '60', 'rest'))).toEqual({ ok: true, weights: [60n, 40n] });
    expect(weigh(split('percent', '100', 'rest'))).toEqual({ ok: true, weights: [100n, 0n] });
  });
  it('amount: sums to the gross and carries its sign', () => {
    expect(weigh(split('amount', '60.00', '40.00'))).toEqual({ ok: true, weights: [6000n, 4000n] });
    expect(weigh(split('amount', '-60.00', 'rest'), -10000n)).toEqual({ ok: true, weights: [6000n, 4000n] });
    expect(weigh(split('amount', '0.00', 'rest'), 0n)).toEqual({ ok: true, weights: [0n, 0n] });
  });
  it('equal and weight', () => {
    expect(weigh(split('equal', null, null))).toEqual({ ok: true, weights: [1n, 1n] });
    expect(weigh(split('weight', '1.5', '2'))).toEqual({ ok: true, weights: [15n, 20n] });
  });
  const refused: [string, Split, object, bigint?][] = [
    ['no share', split('equal'), { problem: 'no-shares' }],
    ['two rests', split('percent', 'rest', 'rest'), { problem: 'rest' }],
    ['a rest by weight', split('weight', '1', 'rest'), { problem: 'rest' }],
    ['a missing value', split('percent', '50', null), { problem: 'value' }],
    ['too many decimals', split('amount', '1.234', 'rest'), { problem: 'value' }],
    ['a negative percent', split('percent', '-1', '101'), { problem: 'negative' }],
    ['percents that leave some', split('percent', '40', '50'), { problem: 'sum', difference: '10' }],
    ['percents beyond 100 with a rest', split('percent', '101', 'rest'), { problem: 'sum', difference: '-1' }],
    ['amounts that leave some', split('amount', '60.00', '39.00'), { problem: 'sum', difference: '1.00' }],
    [
      'amounts beyond the gross with a rest',
      split('amount', '100.01', 'rest'),
      { problem: 'sum', difference: '-0.01' },
    ],
    ['an amount of the other sign', split('amount', '-1.00', 'rest'), { problem: 'sign' }],
    ['any amount over a gross of 0', split('amount', '1.00', '-1.00'), { problem: 'sign', difference: '0.00' }, 0n],
    [
      'percents that do not sum, over a gross of 0',
      split('percent', '50', '40'),
      { problem: 'sum', difference: '10' },
      0n,
    ],
    ['weights all 0', split('weight', '0', '0'), { problem: 'all-zero' }],
    ['a negative weight', split('weight', '2', '-1'), { problem: 'negative' }],
  ];
  it.each(refused)('refuses %s', (_, s, expected, gross) => {
    expect(weigh(s, gross)).toMatchObject({ ok: false, ...expected });
  });
});
