import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { firstProblem, readCase, writePath } from '../../core/documents/readCase.ts';
import { isLoose, stateWithMark } from '../../core/evidence/comparisons/stateWithMark.ts';
import { bitsApart, reasonOf } from '../../core/evidence/duplicates/findDuplicates.ts';
import { assign } from '../../core/evidence/matching/assign.ts';
import { merchantLikeness, merchantWords } from '../../core/evidence/merchants/merchantWords.ts';
import { converterOf } from '../../core/figures/currency/converter.ts';
import { splitWeights } from '../../core/figures/split/splitWeights.ts';
import { reverseRows } from '../../core/ledger/reverseRows.ts';
import { row, balanced } from '../../core/ledger/row.ts';
import { datedRows } from '../../core/numbers/datedRows.ts';
import { isDecimal } from '../../core/numbers/decimal.ts';
import { fraction } from '../../core/numbers/fraction.ts';
import { isIsoDate } from '../../core/numbers/isoDate.ts';
import { minorUnits } from '../../core/numbers/minorUnits.ts';
import { isCreditorReference, isIban } from '../../core/numbers/mod97.ts';
import { visible } from '../../core/numbers/visible.ts';

/** The examples that stand in the comments of the core, where no other test holds them. */
describe('an example in a comment is true of', () => {
  it('numbers, dates and names', () => {
    expect(['-3.125', '1e3', '1,000', ''].map(isDecimal)).toEqual([true, false, false, false]);
    expect(['2024-02-29', '2026-02-29'].map(isIsoDate)).toEqual([true, false]);
    expect(['EUR', 'JPY', 'BHD', 'XYZ'].map(minorUnits)).toEqual([2, 0, 3, null]);
    expect(['GB82 WEST 1234 5698 7654 32', 'GB82 WEST 1234 5698 7654 33'].map(isIban)).toEqual([true, false]);
    expect(['RF18 5390 0754 7034', 'RF19 5390 0754 7034'].map(isCreditorReference)).toEqual([true, false]);
    expect(visible('a\u202Eb')).toBe('ab');
    const rows = [
      { key: 'k', from: '2026-01-01', to: '2026-06-30' },
      { key: 'k', from: '2026-07-01', to: null },
    ];
    expect(datedRows(rows, (r) => r.key).on('k', '2026-07-01')).toBe(rows[1]);
  });
  it('documents', () => {
    const read = readCase({});
    expect(read.ok ? null : read.problems[0]!.path).toEqual(['format']);
    expect(writePath(['claim', 'lines', 0, 'amount'])).toBe('claim.lines[0].amount');
    expect([firstProblem(z.string(), 1)?.path, firstProblem(z.string(), 'x')]).toEqual([[], null]);
  });
  it('currency and split', () => {
    expect(converterOf('USD', 'EUR', fraction(9n, 10n)).convert(100n)).toBe(90n);
    expect(converterOf('USD', 'EUR', null).convert(100n)).toBeNull();
    const split = (by: 'percent' | 'amount', ...values: string[]) =>
      splitWeights({ by, shares: values.map((value) => ({ coding: {}, value })) }, 10000n, 'EUR');
    const half = split('percent', '50', 'rest');
    expect(half.ok && half.weights[0]! * 2n === half.weights[0]! + half.weights[1]!).toBe(true);
    expect(split('amount', '60.00', '30.00')).toMatchObject({ ok: false, problem: 'sum' });
  });
  it('the ledger', () => {
    const details = { currency: 'EUR', amount: 0n, text: '' };
    const rows = (...debits: bigint[]) => debits.map((debit) => row('6310', debit, details));
    expect(balanced(rows(5n, 0n, -5n))).toHaveLength(2);
    expect(() => balanced(rows(5n, -4n))).toThrow('out of balance');
    expect(reverseRows([{ debit: 5n, credit: 0n, amount: 5n }])).toEqual([{ debit: 0n, credit: 5n, amount: -5n }]);
  });
  it('evidence', () => {
    expect(merchantWords('Café Ördög Ltd.')).toEqual(['cafe', 'ordog']);
    expect(merchantWords('')).toEqual([]);
    expect(merchantLikeness('Quay Hotel', 'QUAY HOTEL DUBLIN')).toBe(1);
    expect(merchantLikeness('Quay Hotel', 'Pier Cafe')).toBe(0);
    expect(bitsApart('00000000000000ff', '00000000000000fe')).toBe(1);
    const edge = (row: number, column: number, worth: number) => ({ row, column, worth });
    expect([...assign(2, 2, [edge(0, 0, 9), edge(0, 1, 8), edge(1, 0, 8)])]).toEqual([1, 0]);
    const line = { amount: 2000n, currency: 'EUR', date: '2026-03-01', likeness: null, shows: null, charge: null };
    const a = { ...line, id: 'a', merchant: 'Quay Hotel', receipt: 'r1' };
    expect(reasonOf(a, { ...a, id: 'b' })).toBe('same receipt');
    expect(reasonOf(a, { ...a, id: 'b', amount: 2100n, receipt: 'r2' })).toBeNull();
    const settled = (state: 'off' | 'tied', mark: 'seen' | 'waived') => stateWithMark({ state }, mark);
    expect([settled('off', 'waived'), settled('off', 'seen'), settled('tied', 'seen')]).toEqual([
      'waived',
      'off',
      'tied',
    ]);
    expect((['off', 'open', 'waived', 'seen', 'tied', 'none'] as const).filter(isLoose)).toEqual(['off', 'open']);
  });
});
