import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal, sides, valid, type CaseParts } from '../../../test/fixtures/caseBuilder.ts';
import { assess } from '../../assess/assess.ts';
import type { Line } from '../../documents/case.schema.ts';

const run = (parts: CaseParts) => assess(valid(makeCase(parts)));
const cut = (amount: string, reason = 'Not covered') => ({ amount, reason });

describe('what finance cut of own money', () => {
  it('is as if the rest had been claimed, and says both figures', () => {
    const result = run({ lines: [line({ amount: '123.00', tax: [{ code: 'IE-23' }], cut: cut('23.00') })] });
    const [part] = result.lines[0]!.parts;
    expect(part!.tax[0]).toMatchObject({ net: '81.30', tax: '18.70', recoverable: '18.70' });
    expect([result.lines[0]!.claimAmount, result.settlement.payable]).toEqual(['100.00', '100.00']);
    expect(sides(result.journal)).toEqual(['6310 +81.30', '1410 +18.70', '2110 -100.00']);
    expect(result.findings).toEqual([
      {
        code: 'cut',
        severity: 'note',
        line: '1',
        item: null,
        says: '23.00 of 123.00 EUR was cut, 100.00 is allowed: Not covered',
        difference: '23.00',
      },
    ]);
  });

  it('may be all of it: nothing is due, nothing is posted, and the line stands', () => {
    const result = run({ lines: [line({ cut: cut('100.00') })] });
    expect([result.lines[0]!.claimAmount, result.settlement.due, result.journal]).toEqual(['0.00', '0.00', []]);
  });

  it('takes the line down to what its items are allowed', () => {
    const items = [
      { id: 'a', category: 'supplies', amount: '60.00', cut: cut('10.00') },
      { id: 'b', category: 'meal', amount: '40.00' },
    ];
    const { lines, settlement } = run({ lines: [line({ items })] });
    expect([lines[0]!.claimAmount, lines[0]!.parts.map((p) => p.claimAmount)]).toEqual(['90.00', ['50.00', '40.00']]);
    expect(settlement.payable).toBe('90.00');
  });

  it('uses up less of an advance in its own currency', () => {
    const advances = [{ id: 'A1', person: 'P1', currency: 'KES', outstanding: '10000.00', ledgerOutstanding: '71.43' }];
    const rates = [{ from: 'EUR', to: 'KES', date: '2026-03-02', rate: '140' }];
    const { settlement } = run({
      lines: [line({ amount: '10000.00', currency: 'KES', cut: cut('4000.00') })],
      claim: { advances: [{ advance: 'A1' }] },
      book: { advances, rates },
    });
    expect(settlement.advances[0]).toMatchObject({ applied: '42.86', advancePart: '6000.00', left: '4000.00' });
  });
});

describe('what finance cut of a card charge', () => {
  const charge = (fields: Partial<Line>) =>
    line({
      paidBy: 'card',
      currency: 'USD',
      rate: { kind: 'card', settled: { amount: '92.30', currency: 'EUR' } },
      ...fields,
    });

  it('becomes private; what the bank took stays', () => {
    const result = run({ lines: [charge({ cut: cut('20.00') })] });
    expect(result.lines[0]!.parts.map((p) => [p.personal, p.claimAmount])).toEqual([
      [false, '73.84'],
      [true, '18.46'],
    ]);
    expect(result.settlement).toMatchObject({ due: '-18.46', receivable: '18.46' });
    expect(sides(result.journal)).toEqual(['6310 +73.84', '2130 -92.30', '1320 +18.46']);
  });

  it('stands behind all items, in their order, with the item it is of', () => {
    const items = [
      { id: 'a', category: 'supplies', amount: '60.00', cut: cut('10.00') },
      { id: 'b', category: 'meal', amount: '40.00', cut: cut('40.00') },
    ];
    const { lines } = run({ lines: [charge({ items })] });
    expect(lines[0]!.parts.map((p) => [p.item, p.personal, p.claimAmount])).toEqual([
      ['a', false, '46.15'],
      ['b', false, '0.00'],
      ['a', true, '9.23'],
      ['b', true, '36.92'],
    ]);
  });
});

describe('what a cut leaves of taxes and splits', () => {
  const taxed = (tax: Line['tax'], amount: string, cutAmount: string) =>
    run({ lines: [line({ amount, tax, cut: cut(cutAmount) })] });

  it('divides what is left of what the entries covered by what each covered', () => {
    const tax = [
      { code: 'IE-23', gross: '60.00' },
      { code: 'IE-0', gross: '40.00' },
    ];
    // 100.00 × 110/120 = 91.67, of which 55.00 and 36.67; 20.00 were outside tax
    const rows = taxed(tax, '120.00', '10.00').lines[0]!.parts[0]!.tax;
    expect(rows.map((r) => [r.net, r.tax])).toEqual([
      ['44.72', '10.28'],
      ['36.67', '0.00'],
    ]);
  });

  it('shrinks a given tax with what it is on, and judges it as it was given', () => {
    const kept = taxed([{ code: 'IE-23', tax: '23.00' }], '123.00', '23.00');
    expect(kept.lines[0]!.parts[0]!.tax[0]).toMatchObject({ tax: '18.70', net: '81.30' });
    const off = taxed([{ code: 'IE-23', tax: '20.00' }], '123.00', '23.00');
    expect(off.findings.map((f) => [f.code, f.difference])).toEqual([
      ['cut', '23.00'],
      ['tax-off', '-3.00'],
    ]);
  });

  it('judges a split by what was claimed and divides what is allowed by it', () => {
    const split = {
      by: 'amount' as const,
      shares: [
        { coding: {}, value: '30.00' },
        { coding: { costCentre: '420' } as Record<string, string>, value: 'rest' as const },
      ],
    };
    const { lines, findings } = run({ lines: [line({ split, cut: cut('50.00') })] });
    expect(lines[0]!.parts[0]!.shares.map((s) => s.gross)).toEqual(['15.00', '35.00']);
    expect(findings.map((f) => f.code)).toEqual(['cut']);
  });
});

it.each<[string, Partial<Line>, string]>([
  ['what was paid centrally', { paidBy: 'central', cut: cut('1.00') }, 'cut: what was paid centrally cannot be cut'],
  ['what is private', { paidBy: 'card', personal: true, cut: cut('1.00') }, 'cut: what is personal cannot be cut'],
  ['a cut of the other sign', { cut: cut('-1.00') }, 'cut.amount: does not have the sign of 100.00'],
  ['more than there is', { cut: cut('100.01') }, 'cut.amount: is more than 100.00'],
  ['nothing', { cut: cut('0.00') }, 'cut.amount: must not be 0'],
  ['an amount of other decimals', { cut: cut('1.5') }, 'cut.amount: "1.5" is not an amount'],
  [
    'a line with items, beside them',
    { cut: cut('1.00'), items: [{ id: 'a', category: 'meal', amount: '100.00' }] },
    'cut: a line with items has no cut',
  ],
])('%s cannot be cut', (_, fields, says) => {
  expect(refusal(makeCase({ lines: [line(fields)] }))).toContain(says);
});
