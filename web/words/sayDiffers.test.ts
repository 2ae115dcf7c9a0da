import { describe, expect, it } from 'vitest';
import { groupDigits } from '../../core/numbers/groupDigits.ts';
import { sayDiffers } from './sayDiffers.ts';

const comparison = (
  fact: string,
  claimed: string | null,
  evidence: string | null,
  difference: string | null = null,
) => ({
  ...{ fact, claimed, evidence, difference, tolerance: null, state: 'off' as const },
});
describe('what is not as its evidence says', () => {
  it('is said with both sides', () => {
    const amount = comparison('amount', '60.00', '1284.00');
    expect(sayDiffers({ kind: 'receipt', comparisons: [amount, comparison('date', '2026-11-02', null)] })).toEqual([
      `amount: the line says 60.00, the receipt ${groupDigits('1284.00')}.`,
      'date: the line says 2026-11-02, the receipt nothing.',
    ]);
    expect(sayDiffers({ kind: 'card', comparisons: [amount] })[0]).toContain(`the bank ${groupDigits('1284.00')}`);
  });
  it('names a line of one’s own that is alike, not its owner', () => {
    const alike = comparison(
      'claim C-1002, line 3, Tomás Brandão',
      '9.00 EUR',
      '9.00 EUR',
      'same amount, 2 days apart',
    );
    expect(sayDiffers({ kind: 'duplicate', comparisons: [alike] })).toEqual([
      'It looks like claim C-1002, line 3 of yours: same amount, 2 days apart.',
    ]);
  });
});
