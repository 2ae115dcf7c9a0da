import { describe, expect, it } from 'vitest';
import { line, makeCase, valid, type CaseParts } from '../../test/fixtures/caseBuilder.ts';
import type { Evidence, ReceiptEvidence, TieKind } from './tie.types.ts';
import { reviewCase } from './reviewCase.ts';

const receipt = (fields: Partial<ReceiptEvidence> = {}): ReceiptEvidence => ({
  id: 'r1',
  amount: '100.00',
  currency: 'EUR',
  date: '2026-03-02',
  merchant: 'Wexford Chandlery Ltd',
  taxNumber: 'IE1',
  ...fields,
});
const ties = (parts: CaseParts, evidence: Evidence = {}) => {
  return reviewCase(valid(makeCase(parts)), evidence).ties;
};
const tie = (kind: TieKind, parts: CaseParts, evidence?: Evidence, id = '1') =>
  ties(parts, evidence).find((t) => t.kind === kind && t.line === id)!;
const claimed = line({ merchant: 'Wexford chandlery' });

describe('receipt with line', () => {
  it('ties when amount, currency, date and merchant agree', () => {
    expect(tie('receipt', { lines: [claimed] }, { 1: receipt() })).toMatchObject({ state: 'tied', difference: null });
  });
  const off: [string, Partial<ReceiptEvidence>, string][] = [
    ['the amount', { amount: '109.00' }, '−9.00'],
    ['the currency', { currency: 'GBP' }, 'EUR ≠ GBP'],
    ['the date', { date: '2026-03-04' }, '−2 days'],
    ['the merchant', { merchant: 'Mourne Flowers' }, 'other merchant'],
  ];
  it.each(off)('is off by %s', (_, fields, difference) => {
    const found = tie('receipt', { lines: [claimed] }, { 1: receipt(fields) });
    expect(found.state).toBe('off');
    expect(found.comparisons.some((c) => c.state === 'off' && c.difference === difference)).toBe(true);
  });
  it('is open without a receipt, and where the receipt says nothing', () => {
    expect(tie('receipt', { lines: [claimed] }).state).toBe('open');
    expect(tie('receipt', { lines: [claimed] }, { 1: receipt({ date: null }) }).state).toBe('open');
  });
  it('needs the tax number only where tax could be reclaimed', () => {
    const taxed = { ...claimed, tax: [{ code: 'IE-23' }] };
    const entity = { taxNumberRequired: true };
    expect(tie('receipt', { lines: [taxed], entity }, { 1: receipt({ taxNumber: null }) }).state).toBe('open');
    expect(tie('receipt', { lines: [claimed], entity }, { 1: receipt({ taxNumber: null }) }).state).toBe('tied');
  });
  it('compares a shared receipt with the sum of its lines', () => {
    const lines = [
      line({ amount: '60.00', merchant: 'Wexford Chandlery' }),
      line({ id: '2', amount: '40.00', merchant: 'Wexford Chandlery' }),
    ];
    expect(tie('receipt', { lines }, { 1: receipt(), 2: receipt() }, '2')).toMatchObject({ state: 'tied' });
    const more = [lines[0]!, { ...lines[1]!, amount: '40.01' }];
    expect(tie('receipt', { lines: more }, { 1: receipt(), 2: receipt() })).toMatchObject({
      state: 'off',
      difference: '+0.01',
    });
  });
});

describe('rate with the published rate', () => {
  const rates = [{ from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.25', source: 'Invented' }];
  it('does not apply within one currency', () => {
    expect(tie('rate', { lines: [claimed] }).state).toBe('none');
  });
  it('ties a published rate and shows its steps', () => {
    const found = tie('rate', { lines: [line({ currency: 'USD' })], book: { rates } });
    expect(found.state).toBe('tied');
    expect(found.steps.map((s) => s.value)).toEqual(['2026-03-02', '80', '80.00 EUR']);
  });
  it('compares card and own rates within the tolerance', () => {
    const card = (amount: string) =>
      line({ paidBy: 'card', currency: 'USD', rate: { kind: 'card', settled: { amount, currency: 'EUR' } } });
    expect(tie('rate', { lines: [card('84.00')], book: { rates } }).state).toBe('tied');
    expect(tie('rate', { lines: [card('84.01')], book: { rates } })).toMatchObject({
      state: 'off',
      difference: '+5.01 %',
    });
    expect(tie('rate', { lines: [card('84.00')] }).state).toBe('open');
    expect(
      tie('rate', { lines: [line({ currency: 'USD', rate: { kind: 'own', value: '0.7' } })], book: { rates } }),
    ).toMatchObject({ state: 'off', difference: '−12.5 %' });
  });
  it('is off where no rate is there', () => {
    expect(tie('rate', { lines: [line({ currency: 'USD' })] })).toMatchObject({ state: 'off', difference: 'no rate' });
  });
});

describe('tax claimed with tax computed', () => {
  it('does not apply without tax, ties within a minor unit, is off beyond', () => {
    const given = (tax: string) => tie('tax', { lines: [line({ tax: [{ code: 'IE-23', tax }] })] });
    expect(tie('tax', { lines: [claimed] }).state).toBe('none');
    expect(given('18.71').state).toBe('tied');
    expect(given('18.72')).toMatchObject({ state: 'off', difference: '0.02' });
  });
  it('says why nothing is reclaimed', () => {
    const found = tie('tax', { lines: [line({ tax: [{ code: 'PT-6' }] })] });
    expect(found.state).toBe('tied');
    expect(found.comparisons.find((c) => c.fact === 'PT-6 reclaimable')).toMatchObject({
      claimed: '0.00',
      evidence: expect.stringContaining('not registered'),
    });
  });
  it('is off for a tax of another country', () => {
    expect(tie('tax', { lines: [line({ country: 'GB', tax: [{ code: 'IE-23' }] })] })).toMatchObject({
      state: 'off',
      difference: 'country',
    });
  });
});
