import { describe, expect, it } from 'vitest';
import { line, makeCase, valid } from '../../../test/fixtures/caseBuilder.ts';
import { assess } from '../../assess/assess.ts';
import { isLoose, stateWithMark, type ShownTie } from './stateWithMark.ts';
import { NOTHING_PENDING, summariseReview } from './summariseReview.ts';
import { tieText } from './tieText.ts';
import type { Tie, TieKind } from './tie.types.ts';

const scope = { currency: 'EUR', ledgerCurrency: 'EUR', standing: NOTHING_PENDING };
const two = assess(valid(makeCase({ lines: [line(), line({ id: '2', amount: '-40.00' })] })));
const tie = (kind: TieKind, shown: ShownTie, at = '1') => ({ line: at, kind, shown });

describe('a claim as one row of a list', () => {
  it('says what is to be paid, minus when the person owes', () => {
    expect(summariseReview(two, [], scope)).toMatchObject({ toPay: 6000n, atRisk: 0n, stops: 0, asks: 0, priority: 0 });
    const owes = assess(valid(makeCase({ lines: [line({ amount: '-40.00' })] })));
    expect(summariseReview(owes, [], scope).toPay).toBe(-4000n);
  });
  it('adds up what is at risk: each loose line once, by its size', () => {
    const ties = [tie('receipt', 'off'), tie('tax', 'open'), tie('receipt', 'off', '2'), tie('tax', 'waived', '2')];
    expect(summariseReview(two, ties, scope).atRisk).toBe(14_000n);
    expect(summariseReview(two, [tie('receipt', 'waived'), tie('tax', 'seen')], scope).atRisk).toBe(0n);
  });
  it('adds a line that has a stop though every comparison of it is tied', () => {
    const split = { by: 'percent' as const, shares: [{ coding: {}, value: '60' }] };
    const stopped = assess(valid(makeCase({ lines: [line(), line({ id: '2', amount: '40.00', split })] })));
    expect(summariseReview(stopped, [tie('receipt', 'tied')], scope)).toMatchObject({ stops: 1, atRisk: 4_000n });
  });
  it('shows each kind at its worst, what is off before what was waived', () => {
    const { ties } = summariseReview(
      two,
      [tie('receipt', 'tied'), tie('receipt', 'waived', '2'), tie('tax', 'open')],
      scope,
    );
    expect([ties.receipt, ties.tax, ties.card]).toEqual(['waived', 'open', 'none']);
  });
  it('can be cleared with others when everything is tied by itself and nothing is said or waited for', () => {
    const clean = (ties: ReturnType<typeof tie>[], standing = {}, assessment = two) =>
      summariseReview(assessment, ties, { ...scope, standing: { ...NOTHING_PENDING, ...standing } }).clean;
    expect(clean([tie('receipt', 'tied'), tie('tax', 'none')])).toBe(true);
    for (const state of ['off', 'open', 'waived', 'seen'] as const) expect(clean([tie('receipt', state)])).toBe(false);
    expect([clean([], { waiting: 1 }), clean([], { apart: true }), clean([], { answered: 1 })]).toEqual([
      false,
      false,
      true,
    ]);
    expect(clean([], {}, assess(valid(makeCase({ lines: [line({ currency: 'USD' })] }))))).toBe(false);
  });
  it('comes earlier for stops and answers than for comparisons, late while it waits for an answer, last on hold', () => {
    const stopped = assess(valid(makeCase({ lines: [line({ currency: 'USD' })] })));
    const priority = (assessment: typeof two, ties: ReturnType<typeof tie>[], standing = {}) =>
      summariseReview(assessment, ties, { ...scope, standing: { ...NOTHING_PENDING, ...standing } }).priority;
    const many = Array.from({ length: 150 }, (_, i) => tie('receipt', 'off', String(i)));
    expect([priority(stopped, []), priority(two, many), priority(two, [tie('tax', 'open')])]).toEqual([
      -1_000_000, -990_000, -100,
    ]);
    expect(priority(stopped, many, { onHold: true, waiting: 1 })).toBe(2);
    expect(priority(stopped, many, { waiting: 1, answered: 3 })).toBe(1);
    expect(priority(two, [], { answered: 2 })).toBe(-995_000);
    expect(summariseReview(stopped, [], scope)).toMatchObject({ toPay: null, stops: 1 });
  });
});

describe('what a reviewer said of a comparison', () => {
  it('settles what is off by waiving, what is open by either, and changes nothing of what is tied', () => {
    const states = (mark: 'seen' | 'waived' | null) =>
      (['off', 'open', 'tied', 'none'] as const).map((state) => stateWithMark({ state }, mark));
    expect(states(null)).toEqual(['off', 'open', 'tied', 'none']);
    expect(states('seen')).toEqual(['off', 'seen', 'tied', 'none']);
    expect(states('waived')).toEqual(['waived', 'waived', 'tied', 'none']);
    expect((['off', 'open', 'waived', 'seen', 'tied', 'none'] as const).filter(isLoose)).toEqual(['off', 'open']);
  });
  it('is about both sides, difference and state, and not about how a figure came about', () => {
    const comparison = {
      fact: 'amount',
      claimed: '1.00',
      evidence: '2.00',
      difference: '-1.00',
      tolerance: null,
      state: 'off' as const,
    };
    const one: Tie = {
      line: '1',
      kind: 'receipt',
      state: 'off',
      difference: null,
      comparisons: [comparison],
      steps: [],
    };
    expect(tieText({ ...one, steps: [{ label: 'x', value: '1', source: null }] })).toBe(tieText(one));
    for (const change of [{ evidence: '3.00' }, { claimed: '3.00' }, { state: 'tied' as const }, { tolerance: '5' }])
      expect(tieText({ ...one, comparisons: [{ ...comparison, ...change }] })).not.toBe(tieText(one));
  });
});
