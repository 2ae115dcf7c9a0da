import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal, valid } from '../../../test/fixtures/caseBuilder.ts';
import { assess } from '../../assess/assess.ts';
import { explainLine } from '../../explain/explainLine.ts';

const rebilled = (fields: Parameters<typeof line>[0]) => {
  const document = valid(makeCase({ lines: [line(fields)] }));
  return {
    assessment: assess(document),
    explained: explainLine(document, '1')!.filter((e) => e.figure === 'rebilled'),
  };
};

describe('what is charged on', () => {
  it('is the amount with its mark-up, rounded once, half away from zero', () => {
    const of = (amount: string, markup: string | null) =>
      rebilled({ amount, rebill: { to: 'Reed Trust', markup } }).assessment.lines[0]!.rebilled;
    expect(of('12.35', '10')).toBe('13.59');
    expect(of('-12.35', '10')).toBe('-13.59');
    expect(of('12.35', null)).toBe('12.35');
    expect(of('0.01', '49.9')).toBe('0.01');
    expect(of('0.01', '50')).toBe('0.02');
  });
  it('changes nothing of what is paid and posted, and is explained', () => {
    const without = rebilled({});
    const { assessment, explained } = rebilled({ rebill: { to: 'Reed Trust', markup: '10' } });
    expect(assessment.settlement).toEqual(without.assessment.settlement);
    expect(assessment.journal).toEqual(without.assessment.journal);
    expect(without.explained).toEqual([]);
    expect('rebilled' in without.assessment.lines[0]!).toBe(false);
    expect(explained[0]).toMatchObject({
      result: '110.00',
      currency: 'EUR',
      inputs: { to: 'Reed Trust', 'mark-up': '10 %' },
    });
  });
  it('is not known where the amount is not, and never of what is private', () => {
    const unknown = rebilled({ currency: 'ISK', amount: '100', rebill: { to: 'Reed Trust' } });
    expect(unknown.assessment.lines[0]!.rebilled).toBeNull();
    const card = {
      paidBy: 'card',
      personal: true,
      category: null,
      rate: { kind: 'card', settled: { amount: '100.00', currency: 'EUR' } },
    } as const;
    expect(refusal(makeCase({ lines: [line({ ...card, rebill: { to: 'Reed Trust' } })] }))).toContain(
      'charged on to nobody',
    );
  });
});
