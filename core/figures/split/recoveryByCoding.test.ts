import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal, sides, valid, type CaseParts } from '../../../test/fixtures/caseBuilder.ts';
import { assess } from '../../assess/assess.ts';
import { explainLine } from '../../explain/explainLine.ts';

type Rows = NonNullable<NonNullable<CaseParts['entity']>['recoveryByCoding']>;
const forgo = (recovery: string, values = ['70'], more: Partial<Rows[number]> = {}): Rows[number] => ({
  dimension: 'fund',
  values,
  recovery,
  ...more,
});
const funds = (...codes: string[]) => ({
  by: 'equal' as const,
  shares: codes.map((fund) => ({ coding: { fund } as Record<string, string> })),
});
const run = (parts: CaseParts) => assess(valid(makeCase(parts)));

describe('a fund that does not reclaim', () => {
  it('bears the tax on its shares alone', () => {
    const result = run({
      lines: [line({ amount: '100.01', tax: [{ code: 'IE-23' }], split: funds('70', '10', '10') })],
      entity: { recoveryByCoding: [forgo('0')] },
    });
    const [part] = result.lines[0]!.parts;
    expect(part!.shares.map((s) => [s.gross, s.recoverable, s.cost])).toEqual([
      ['33.34', '0.00', '33.34'],
      ['33.34', '6.23', '27.11'],
      ['33.33', '6.23', '27.10'],
    ]);
    expect(part!.tax[0]).toMatchObject({ tax: '18.70', recoverable: '12.46', ledgerRecoverable: '12.46' });
    expect(sides(result.journal)).toEqual(['6310 +33.34', '6310 +27.11', '6310 +27.10', '1410 +12.46', '2110 -100.01']);
  });

  it('rounds each tax by itself, the least of its rows counts, and a line without a split is one share', () => {
    const tax = ['a', 'b'].map(() => ({ code: 'IE-23', gross: '0.16' }));
    const shares = (rows: Rows, fund: string, date = '2026-03-02') =>
      run({ lines: [line({ amount: '0.32', tax, date, coding: { fund } })], entity: { recoveryByCoding: rows } })
        .lines[0]!.parts[0]!.shares[0]!.recoverable;
    // each tax is 0.03, its half 0.015 → 0.02
    expect(shares([forgo('50')], '70')).toBe('0.04');
    expect(shares([forgo('50'), forgo('0', ['70', '71'])], '70')).toBe('0.00');
    expect(shares([forgo('50')], '10')).toBe('0.06');
    expect(shares([forgo('0', ['70'], { from: '2026-03-03' })], '70')).toBe('0.06');
  });

  it('counts with a share of weight 0 too, and leaves what is owed of a self-assessed tax', () => {
    const split = { ...funds('70', '10'), by: 'weight' as const };
    split.shares.forEach((share, i) => Object.assign(share, { value: String(i) }));
    const [part] = run({
      lines: [line({ tax: [{ code: 'IE-SA' }], split })],
      entity: { recoveryByCoding: [forgo('0')] },
    }).lines[0]!.parts;
    expect(part!.shares.map((s) => [s.recoverable, s.selfAssessed])).toEqual([
      ['0.00', '0.00'],
      ['23.00', '23.00'],
    ]);
  });

  it('is explained share by share', () => {
    const document = valid(
      makeCase({
        lines: [line({ tax: [{ code: 'IE-23' }], split: funds('70', '10') })],
        entity: { recoveryByCoding: [forgo('0')] },
      }),
    );
    const steps = explainLine(document, '1')!.filter((s) => s.rule === '32');
    expect(steps.map((s) => [s.share, s.inputs, s.result])).toEqual([
      [0, { coding: '0 %' }, '0.00'],
      [1, { coding: '100 %' }, '9.35'],
    ]);
  });

  it('cannot be an account, nor more than all', () => {
    const refused = (row: Rows[number]) => refusal(makeCase({ lines: [], entity: { recoveryByCoding: [row] } }));
    expect(refused(forgo('0', ['1'], { dimension: 'account' }))).toContain('dimension: an account is no dimension');
    expect(refused(forgo('100.01'))).toContain('recovery: must be between 0 and 100');
  });
});
