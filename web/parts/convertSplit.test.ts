import { describe, expect, it } from 'vitest';
import { convertSplit, moveCut, restTo } from './convertSplit.ts';

const split = (by: string, ...values: (string | null)[]) =>
  ({ by, shares: values.map((value, i) => ({ coding: { costCentre: String(i) }, value })) }) as never;
const values = (s: { shares: { value?: string | null | undefined }[] }) => s.shares.map((x) => x.value);

describe('dividing another way', () => {
  const three = split('percent', '50', '30', 'rest');
  it.each([
    ['amount', ['5.00', '3.00', 'rest']],
    ['percent', ['50', '30', 'rest']],
    ['equal', [null, null, null]],
    ['weight', ['1', '1', '1']],
  ])('%s', (by, expected) => {
    expect(values(convertSplit(three, by as never, ['5.00', '3.00', '2.00']))).toEqual(expected);
  });
  it('begins percents even, the last taking what is left, and keeps the codings', () => {
    const even = convertSplit(split('equal', null, null, null), 'percent', []);
    expect(values(even)).toEqual(['33', '33', 'rest']);
    expect(even.shares.map((s) => s.coding)).toEqual([{ costCentre: '0' }, { costCentre: '1' }, { costCentre: '2' }]);
  });
  it('has 0 where an amount is not known', () => {
    expect(values(convertSplit(three, 'amount', [null]))).toEqual(['0', '0', 'rest']);
  });
});

describe('taking the rest', () => {
  it('lets the share that took it keep what it came to', () => {
    expect(values(restTo(split('percent', '50', '30.5', 'rest'), 0, []))).toEqual(['rest', '30.5', '19.5']);
    expect(values(restTo(split('percent', 'rest', '33.333'), 1, []))).toEqual(['66.667', 'rest']);
    expect(values(restTo(split('amount', '5.00', 'rest'), 0, ['5.00', '7.01']))).toEqual(['rest', '7.01']);
  });
  it('is given to one where none took it', () => {
    expect(values(restTo(split('amount', '5.00', '4.00'), 1, ['5.00', '4.00']))).toEqual(['5.00', 'rest']);
  });
});

describe('moving a cut of the bar', () => {
  const three = split('percent', '50', '30', 'rest');
  const move = (index: number, at: number) => values(moveCut(three, [50, 30, 20], index, at));
  it('changes the two shares beside it alone', () => {
    expect(move(0, 40)).toEqual(['40', '40', 'rest']);
    expect(move(1, 60)).toEqual(['50', '10', 'rest']);
  });
  it('stops at its neighbours', () => {
    expect(move(0, 95)).toEqual(['80', '0', 'rest']);
    expect(move(1, 10)).toEqual(['50', '0', 'rest']);
  });
  it('makes whole percents of amounts that have none', () => {
    const thirds = split('equal', null, null, null);
    expect(values(moveCut(thirds, [1, 1, 1], 0, 40))).toEqual(['40', '26', 'rest']);
    expect(values(moveCut(thirds, [1, 1, 1], 1, 100))).toEqual(['33', '67', 'rest']);
  });
});
