import { describe, expect, it } from 'vitest';
import type { Tie } from '../../../core/evidence/comparisons/tie.types.ts';
import { fingerprintOf, type AssessedClaim } from './assessed.ts';
import { holdingMarks } from './holdingMarks.ts';

/** A limit that is exceeded, as it is compared by a rate. */
const limit = (claimed: string, state: Tie['state'] = 'off'): Tie => ({
  ...{ line: '1', kind: 'limit', state, difference: null, steps: [] },
  comparisons: [{ fact: 'night', claimed, evidence: '150.00', difference: null, tolerance: null, state }],
});
type At = Pick<AssessedClaim, 'document' | 'ties'>;
const at = (tie: Tie, { purpose = 'Trip', rateDate = 'posting', limits = [{ amount: '150.00' }] } = {}): At =>
  ({ document: { claim: { purpose }, book: { entities: [{ rateDate }], limits } }, ties: [tie] }) as never;
const waiver = {
  line_id: '1',
  kind: 'limit',
  mark: 'waived',
  about: fingerprintOf(limit('900.00')),
  reason: 'Agreed',
} as const;
const holds = (before: At | null, now: At) => holdingMarks([waiver], now, before).map((m) => m.about);

describe('what a reviewer waived', () => {
  const before = at(limit('900.00'));
  it('holds of the very comparison, and by the rates of another day where rates are those of the posting', () => {
    expect(holds(null, before)).toEqual([waiver.about]);
    expect(holds(before, at(limit('910.00')))).toEqual([fingerprintOf(limit('910.00'))]);
    expect(holds(null, at(limit('910.00')))).toEqual([]);
    expect(holds(at(limit('900.00'), { rateDate: 'line' }), at(limit('910.00'), { rateDate: 'line' }))).toEqual([]);
  });
  it.each([
    ['the claim', at(limit('910.00'), { purpose: 'Holiday' })],
    ['a rule', at(limit('910.00'), { limits: [{ amount: '10.00' }] })],
    ['how it came out', at(limit('910.00', 'open'))],
    ['the line', at({ ...limit('910.00'), line: '2' })],
  ])('falls away where %s is another', (_, now) => {
    expect(holds(before, now)).toEqual([]);
  });
});
