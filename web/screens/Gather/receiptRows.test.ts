import { describe, expect, it } from 'vitest';
import { partsOf } from './partsOf.ts';
import { found, sorted } from './receiptRows.ts';

const receipt = (name: string, fields: object) =>
  ({ name, cameIn: null, state: 'read', confirmed: null, usedOn: [], ...fields }) as never;
const shown = (amount: string, date: string, merchant: string) => ({
  confirmed: { amount, currency: 'EUR', date, merchant },
});
const ALL = [
  receipt('a.png', shown('9.50', '2026-03-02', 'Café Marisma')),
  receipt('b.pdf', shown('120.00', '2026-01-05', 'Ferry')),
  receipt('c.png', { reading: { merchant: { value: 'Zoo', sure: 'likely' } } }),
  receipt('d.png', { ...shown('30.00', '2026-02-01', 'Inn'), usedOn: [{ claim: 'C-1031', line: '2' }] }),
];
const names = (list: readonly { name: string }[]) => list.map((r) => r.name);

describe('receipts', () => {
  it('are found by all words, whatever their accents and case', () => {
    expect(names(found(ALL, 'cafe 9.50'))).toEqual(['a.png']);
    expect(names(found(ALL, 'c-1031'))).toEqual(['d.png']);
    expect(names(found(ALL, 'look'))).toEqual(['c.png']);
    expect(names(found(ALL, 'ferry 2026-03'))).toEqual([]);
    expect(found(ALL, ' ')).toHaveLength(4);
  });
  it('are put in an order, what is not known last', () => {
    expect(names(sorted(ALL, 'amount'))).toEqual(['b.pdf', 'd.png', 'a.png', 'c.png']);
    expect(names(sorted(ALL, 'date'))).toEqual(['a.png', 'd.png', 'b.pdf', 'c.png']);
    expect(names(sorted(ALL, 'merchant'))).toEqual(['a.png', 'b.pdf', 'd.png', 'c.png']);
    expect(names(sorted(ALL, 'attention'))[0]).toBe('c.png');
    expect(names(sorted(ALL, 'added'))).toEqual(names(ALL));
  });
});

it('pages are parted where another receipt begins', () => {
  expect(partsOf(5, new Set([1, 3]))).toEqual([
    [1, 2],
    [3, 4, 5],
  ]);
  expect(partsOf(2, new Set())).toEqual([[1, 2]]);
});
