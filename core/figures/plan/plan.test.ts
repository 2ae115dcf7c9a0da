import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal, valid, type CaseParts } from '../../../test/fixtures/caseBuilder.ts';
import { NO_EVIDENCE } from '../../evidence/comparisons/tie.types.ts';
import { reviewCase } from '../../evidence/comparisons/reviewCase.ts';
import type { Line, Plan } from '../../documents/case.schema.ts';

const plan = (amount: string): Plan => ({
  number: 'T-1',
  approvedOn: '2026-02-27',
  estimates: [{ id: 'E1', amount }],
});
const onE1 = (fields: Partial<Line> = {}) => line({ estimate: 'E1', ...fields });
const TOLERANCE = { percent: '10', amount: '25.00' };

function review({ claim, ...parts }: CaseParts, estimate = '200.00') {
  const { assessment, ties } = reviewCase(
    valid(makeCase({ ...parts, claim: { plan: plan(estimate), ...claim } })),
    NO_EVIDENCE,
  );
  const over = assessment.findings.filter((f) => f.code === 'plan-over');
  return { over, ties: ties.filter((t) => t.kind === 'plan') };
}
const overBy = (parts: CaseParts, estimate?: string) => review(parts, estimate).over.map((f) => f.difference);

describe('estimate and actual', () => {
  it('without a tolerance nothing more than the estimate is kept', () => {
    expect(overBy({ lines: [onE1({ amount: '200.00' })] })).toEqual([]);
    expect(review({ lines: [onE1({ amount: '150.00' }), onE1({ id: '2', amount: '50.01' })] }).over).toEqual([
      {
        code: 'plan-over',
        severity: 'ask',
        line: null,
        item: null,
        estimate: 'E1',
        says: 'Estimate E1 of plan T-1 was 200.00 EUR; 200.01 was spent, 0.01 more. Say why.',
        difference: '0.01',
      },
    ]);
  });

  it('with one it has to be more than the percentage and more than the amount', () => {
    const at = (amount: string, estimate: string) =>
      overBy({ lines: [onE1({ amount })], entity: { planTolerance: TOLERANCE } }, estimate);
    expect([at('225.00', '200.00'), at('225.01', '200.00')]).toEqual([[], ['25.01']]);
    expect([at('330.00', '300.00'), at('330.01', '300.00')]).toEqual([[], ['30.01']]);
    expect(overBy({ lines: [onE1({ amount: '220.01' })], entity: { planTolerance: { percent: '10' } } })).toEqual([
      '20.01',
    ]);
  });

  it('compares the amount unrounded, by the rate of the day of approval, and not at all without one', () => {
    const rates = [{ from: 'EUR', to: 'GBP', date: '2026-02-26', rate: '0.84125' }];
    // 25.00 EUR are 21.03125 GBP: 21.03 is within, 21.04 is not
    const at = (amount: string, book: CaseParts['book']) =>
      overBy({
        lines: [onE1({ amount, currency: 'GBP' })],
        claim: { currency: 'GBP' },
        entity: { planTolerance: { amount: '25.00' } },
        book,
      });
    const also = { from: 'EUR', to: 'GBP', date: '2026-03-01', rate: '0.9' };
    expect([at('221.03', { rates: [...rates, also] }), at('221.04', { rates: [...rates, also] })]).toEqual([
      [],
      ['21.04'],
    ]);
    expect(at('200.01', { rates: [also] })).toEqual(['0.01']);
  });

  it('leaves out what is private or cut, whoever paid, and what is not known', () => {
    const private_ = onE1({ id: '2', paidBy: 'card', personal: true, amount: '500.00' });
    delete private_.category;
    const cut = onE1({ id: '3', paidBy: 'card', amount: '150.00', cut: { amount: '50.00', reason: 'x' } });
    expect(overBy({ lines: [onE1(), private_, cut] })).toEqual([]);
    expect(overBy({ lines: [onE1({ amount: '900.00', currency: 'USD' })] })).toEqual([]);
    expect(overBy({ lines: [line({ amount: '900.00' })] })).toEqual([]);
  });

  it('stands at the last line of the estimate, with what each of its lines adds', () => {
    const { ties } = review({
      lines: [onE1({ amount: '150.00', merchant: 'Inn' }), onE1({ id: '2', amount: '60.00' }), line({ id: '3' })],
      entity: { planTolerance: { percent: '1' } },
    });
    expect(ties.map((t) => [t.line, t.state, t.difference])).toEqual([
      ['1', 'tied', null],
      ['2', 'off', '+10.00'],
      ['3', 'none', null],
    ]);
    expect(ties[1]!.comparisons[0]).toMatchObject({
      claimed: '210.00 EUR',
      evidence: '200.00 EUR',
      tolerance: '1 %',
    });
    expect(ties[1]!.steps.map((s) => [s.label, s.value])).toEqual([
      ['line 1', '150.00 EUR'],
      ['line 2', '60.00 EUR'],
    ]);
    expect(review({ lines: [onE1({ currency: 'USD' })] }).ties[0]!.state).toBe('open');
  });
});

it.each([
  ['an estimate the plan does not have', plan('1.00'), 'E2', "claim.lines.0.estimate: the claim's plan has no"],
  ['an estimate without a plan', null, 'E1', "claim.lines.0.estimate: the claim's plan has no"],
  ['an estimate below 0', plan('-1.00'), 'E1', 'estimates.0.amount: must not be negative'],
  ['an estimate of other decimals', plan('1.0'), 'E1', 'estimates.0.amount: "1.0" is not an amount'],
  [
    'an estimate twice',
    { ...plan('1.00'), estimates: [...plan('1.00').estimates, ...plan('2.00').estimates] },
    'E1',
    'estimates.1.id: "E1" is used by two estimates',
  ],
])('%s is refused', (_, given, estimate, says) => {
  expect(refusal(makeCase({ lines: [line({ estimate })], claim: { plan: given } }))).toContain(says);
});
