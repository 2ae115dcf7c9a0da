import { describe, expect, it } from 'vitest';
import { line, makeCase, valid, type CaseParts } from '../../test/fixtures/caseBuilder.ts';
import { assess } from '../assess/assess.ts';
import { explainLine } from './explainLine.ts';

const explain = (parts: CaseParts, id = '1') => explainLine(valid(makeCase(parts)), id)!;
const rates = [{ from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.0834', source: 'Invented' }];

describe('explaining a line', () => {
  it('gives inputs, rule, rate with source and date, exact and rounded result', () => {
    expect(explain({ lines: [line({ currency: 'USD' })], book: { rates } })[0]).toEqual({
      figure: 'claimAmount',
      line: '1',
      item: null,
      share: null,
      rule: '5–7',
      inputs: { amount: '100.00 USD', date: '2026-03-02' },
      rates: [{ from: 'USD', to: 'EUR', quoted: '1.0834', reciprocal: true, date: '2026-03-02', source: 'Invented' }],
      formula: 'amount × rate',
      exact: '92.302012183865',
      result: '92.30',
      currency: 'EUR',
    });
  });
  it('explains tax, what is reclaimable, and shares', () => {
    const split = { by: 'equal' as const, shares: [{ coding: {} }, { coding: {} }, { coding: {} }] };
    const steps = explain({ lines: [line({ amount: '100.01', tax: [{ code: 'IE-23' }], split })] });
    expect(steps.find((s) => s.figure === 'tax IE-23')).toMatchObject({
      rule: '9',
      formula: 'gross × rate ÷ 1.23',
      exact: '18.701056910569',
      result: '18.70',
    });
    expect(steps.find((s) => s.figure === 'recoverable IE-23')).toMatchObject({
      inputs: { component: '100', category: '100', entity: '100' },
      result: '18.70',
    });
    expect(steps.filter((s) => s.figure === 'gross').map((s) => [s.share, s.exact, s.result])).toEqual([
      [0, '33.336666666666', '33.34'],
      [1, '33.336666666666', '33.34'],
      [2, '33.336666666666', '33.33'],
    ]);
  });
  it('explains items, given taxes of several components, and card rates', () => {
    const items = [
      { id: 'a', category: 'supplies', amount: '60.00', tax: [{ code: 'CA-5-7', tax: '6.43' }] },
      { id: 'b', category: 'supplies', amount: '40.00' },
    ];
    const steps = explain({
      lines: [
        line({
          currency: 'USD',
          paidBy: 'card',
          rate: { kind: 'card', settled: { amount: '92.00', currency: 'EUR' } },
          items,
        }),
      ],
    });
    expect(steps[0]).toMatchObject({ inputs: { settled: '92.00 EUR' }, formula: 'settled', result: '92.00' });
    expect(steps.filter((s) => s.figure === 'tax CA-5-7/province')).toMatchObject([
      { rule: '10', inputs: { given: '6.43' }, item: 'a' },
    ]);
    expect(steps.filter((s) => s.figure === 'ledgerAmount').map((s) => s.result)).toEqual(['92.00', '55.20', '36.80']);
  });
  it('never says another figure than assess does', () => {
    const parts: CaseParts = { lines: [line({ currency: 'USD', tax: [{ code: 'IE-SA' }] })], book: { rates } };
    const [assessed] = assess(valid(makeCase(parts))).lines;
    const result = (figure: string) => explain(parts).find((s) => s.figure === figure)?.result;
    expect([result('claimAmount'), result('ledgerAmount'), result('tax IE-SA')]).toEqual([
      assessed!.claimAmount,
      assessed!.ledgerAmount,
      assessed!.parts[0]!.tax[0]!.tax,
    ]);
  });
  it('is empty-handed for a line that is not there, and says null for what cannot be computed', () => {
    expect(explainLine(valid(makeCase({ lines: [line()] })), '9')).toBeUndefined();
    expect(explain({ lines: [line({ currency: 'USD' })] })[0]).toMatchObject({ exact: null, result: null, rates: [] });
  });
});
