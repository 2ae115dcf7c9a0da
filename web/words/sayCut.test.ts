import { describe, expect, it } from 'vitest';
import { line } from '../../test/fixtures/caseBuilder.ts';
import { allowedOf, sayCuts, sayDeclined } from './sayCut.ts';

/** Digits are grouped by a thin space. */
const plain = (said: ReturnType<typeof sayCuts>) => said.map((s) => ({ ...s, says: s.says.replace(/\s/g, ' ') }));

describe('what is not allowed of a line', () => {
  it('is said of the line or of each item, with the reason', () => {
    expect(sayCuts(line({ amount: '1200.00' }))).toEqual([]);
    expect(plain(sayCuts(line({ amount: '1200.00', cut: { amount: '200.00', reason: 'Minibar' } })))).toEqual([
      { says: '1 000.00 of 1 200.00 EUR allowed', reason: 'Minibar' },
    ]);
    expect(sayCuts(line({ amount: '12.00', cut: { amount: '12.00', reason: 'Paid already' } }))).toEqual([
      { says: '0.00 of 12.00 EUR allowed', reason: 'Paid already' },
    ]);
    const items = [
      { id: 'a', amount: '9.00', description: 'Room' },
      { id: 'b', amount: '3.00', description: 'wine', cut: { amount: '3.00', reason: 'Own' } },
    ];
    expect(sayCuts(line({ amount: '12.00', items }))).toEqual([
      { says: 'Wine: 0.00 of 3.00 EUR allowed', reason: 'Own' },
    ]);
  });

  it('is said as declined where somebody declined the line, and there alone', () => {
    const declined = [{ line: '2', by: 'Siobhán O’Dowd', reason: 'Lodging' }];
    expect(sayDeclined(declined, line({ id: '2' }))).toEqual([
      { says: 'Declined by Siobhán O’Dowd', reason: 'Lodging' },
    ]);
    expect(sayDeclined(declined, line({ id: '1', cut: { amount: '12.00', reason: 'Own' } }))).toBeNull();
  });
  it('leaves what counts, in the decimals of the currency', () => {
    expect(allowedOf(line({ amount: '12.00' }))).toBeNull();
    expect(allowedOf(line({ amount: '12', currency: 'JPY', cut: { amount: '12', reason: 'Own' } }))).toBe('0');
    expect(allowedOf(line({ amount: '12.500', currency: 'BHD', cut: { amount: '0.005', reason: 'Own' } }))).toBe(
      '12.495',
    );
    expect(allowedOf(line({ amount: '-12.00', cut: { amount: '-2.00', reason: 'Own' } }))).toBe('-10.00');
  });
});
