import { describe, expect, it } from 'vitest';
import { partner, plannedLine, PRIVATE, problemOf, takeOf } from './wishes.ts';

const pairs = (score: number, differs: string | null = null, merchant: string | null = 'Ferry') =>
  ({
    proposals: { spendings: [{ left: ['r1'], right: ['c1'], score, differs }] },
    charges: [{ id: 'c1', merchant: 'Ferry', purchasedOn: '2026-11-01', category: 'travel' }],
    receipts: [{ id: 'r1', name: 'scan.png', merchant }],
  }) as never;
const receipt = { key: 'r1', receipt: 'r1', name: 'scan.png', category: null, ready: true };
const charge = { key: 'c1', charge: 'c1', name: 'Ferry', category: 'travel', ready: true };
const nothing = { categories: {}, alone: new Set<string>() };

describe('a receipt and a charge of one spending', () => {
  it('are put together when they very likely are', () => {
    expect(partner(receipt, pairs(70))).toMatchObject({ charge: 'c1', category: 'travel' });
    expect(partner(charge, pairs(70))).toMatchObject({ receipt: 'r1', category: null });
    expect(partner(receipt, pairs(69))).toBeNull();
    expect(partner(receipt, pairs(80, '4.00 EUR more, as a tip would be'))).toBeNull();
    expect(partner({ ...receipt, receipt: 'r2' }, pairs(90))).toBeNull();
  });
  it('of merchants that are not alike, or not known, only when it is proof', () => {
    for (const merchant of ['Quay Stores', null]) {
      expect(partner(receipt, pairs(84, null, merchant))).toBeNull();
      expect(partner(receipt, pairs(85, null, merchant))).toMatchObject({ charge: 'c1' });
    }
  });
  it('make one line, with the category of the charge', () => {
    expect(plannedLine(receipt, nothing, pairs(90))).toMatchObject({ receipt: 'r1', charge: 'c1', category: 'travel' });
  });
  it('stay two when the person says so', () => {
    const alone = { categories: {}, alone: new Set(['r1']) };
    expect(plannedLine(receipt, alone, pairs(90))).toMatchObject({ receipt: 'r1', charge: null, category: '' });
  });
  it('have the category that was chosen before every proposed one', () => {
    expect(plannedLine(charge, { ...nothing, categories: { c1: 'meal' } }, pairs(90)).category).toBe('meal');
  });
});

describe('what is asked for', () => {
  const line = (fields: object = {}) => ({ wish: receipt, receipt: 'r1', charge: null, category: 'meal', ...fields });
  it('is refused while a receipt was not looked at, then while a category is missing, then without a purpose', () => {
    const unready = { ...receipt, ready: false };
    expect(problemOf([line({ wish: unready, category: '' })], true)).toBe(
      'Look at scan.png first and confirm what it shows.',
    );
    expect(problemOf([line(), line({ category: '' })], false)).toBe('Choose a category for scan.png.');
    expect(problemOf([line()], false)).toBe('Say what the claim is for.');
    expect(problemOf([line()], true)).toBeNull();
  });
  it('says private instead of a category', () => {
    expect(takeOf(line())).toEqual({ receipt: 'r1', charge: null, category: 'meal', personal: false });
    expect(takeOf(line({ category: PRIVATE }))).toEqual({
      receipt: 'r1',
      charge: null,
      category: null,
      personal: true,
    });
  });
});
