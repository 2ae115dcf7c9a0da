import { describe, expect, it } from 'vitest';
import { line } from '../../test/fixtures/caseBuilder.ts';
import { sayCuts } from './sayCut.ts';

/** Digits are grouped by a thin space. */
const plain = (said: ReturnType<typeof sayCuts>) => said.map((s) => ({ ...s, says: s.says.replace(/\s/g, ' ') }));

describe('what is not allowed of a line', () => {
  it('is said of the line or of each item, with the reason', () => {
    expect(sayCuts(line({ amount: '1200.00' }))).toEqual([]);
    expect(plain(sayCuts(line({ amount: '1200.00', cut: { amount: '200.00', reason: 'Minibar' } })))).toEqual([
      { says: '1 000.00 of 1 200.00 EUR allowed', reason: 'Minibar' },
    ]);
    expect(sayCuts(line({ amount: '12.00', cut: { amount: '12.00', reason: 'Paid already' } }))).toEqual([
      { says: 'Declined', reason: 'Paid already' },
    ]);
    const items = [
      { id: 'a', amount: '9.00', description: 'Room' },
      { id: 'b', amount: '3.00', description: 'wine', cut: { amount: '3.00', reason: 'Own' } },
    ];
    expect(sayCuts(line({ amount: '12.00', items }))).toEqual([{ says: 'Wine: declined', reason: 'Own' }]);
  });
});
