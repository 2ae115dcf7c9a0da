import { describe, expect, it } from 'vitest';
import { line, makeCase, sides, valid, type CaseParts } from '../../../test/fixtures/caseBuilder.ts';
import { assess } from '../../assess/assess.ts';

const run = (parts: CaseParts) => assess(valid(makeCase(parts)));
const codes = (result: ReturnType<typeof assess>) =>
  result.findings.map((f) => `${f.severity} ${f.code} ${f.line ?? ''}`.trim());

describe('settlement', () => {
  const advance = (fields: object) => ({
    id: 'A1',
    person: 'P1',
    currency: 'EUR',
    outstanding: '200.00',
    ledgerOutstanding: '200.00',
    ...fields,
  });

  it('pays the claimant, gets back, or nets advances within their cap', () => {
    const claim = { advances: [{ advance: 'A1', upTo: '30.00' }, { advance: 'A2' }] };
    const advances = [advance({}), advance({ id: 'A2', outstanding: '50.00', ledgerOutstanding: '49.00' })];
    const result = run({ lines: [line()], claim, book: { advances } });
    expect(result.settlement).toMatchObject({
      due: '100.00',
      payable: '20.00',
      advances: [
        { applied: '30.00', left: '170.00' },
        { applied: '50.00', left: '0.00', ledgerPart: '49.00' },
      ],
    });
    expect(sides(result.journal)).toEqual([
      '6310 +100.00',
      '2110 -100.00',
      '2110 +30.00',
      '1310 -30.00',
      '2110 +50.00',
      '1310 -49.00',
      '7990 -1.00',
    ]);
  });

  it('never uses an advance for what the company paid', () => {
    const result = run({
      lines: [line({ paidBy: 'card' })],
      claim: { advances: [{ advance: 'A1' }] },
      book: { advances: [advance({})] },
    });
    expect(result.settlement).toMatchObject({
      due: '0.00',
      payable: '0.00',
      advances: [{ applied: '0.00', left: '200.00' }],
    });
    expect(sides(result.journal)).toEqual(['6310 +100.00', '2130 -100.00']);
  });

  it('books a negative due as receivable', () => {
    const result = run({ lines: [line({ amount: '-40.00' })] });
    expect(result.settlement).toMatchObject({ due: '-40.00', payable: '0.00', receivable: '40.00' });
    expect(sides(result.journal)).toEqual(['6310 -40.00', '1320 +40.00']);
  });

  it('converts what is due at the posting date when its ledger value cannot stand for it', () => {
    const rates = [
      { from: 'EUR', to: 'USD', date: '2026-03-02', rate: '2' },
      { from: 'EUR', to: 'USD', date: '2026-03-31', rate: '1.6' },
    ];
    const settled = (amount: string) =>
      line({
        id: '2',
        paidBy: 'card',
        personal: true,
        amount: '99.00',
        currency: 'USD',
        rate: { kind: 'card', settled: { amount, currency: 'EUR' } },
      });
    const journal = (amount: string) =>
      sides(
        run({ lines: [line({ currency: 'USD' }), settled(amount)], claim: { currency: 'USD' }, book: { rates } })
          .journal,
      );
    // due is 1.00 USD; the lines are worth 50.00 − 60.00 = −10.00, 0.00 or 0.50 in the ledger
    expect(journal('60.00')).toEqual(['6310 +50.00', '2130 -60.00', '2110 -0.63', '7990 +10.63']);
    expect(journal('50.00')).toEqual(['6310 +50.00', '2130 -50.00', '2110 -0.63', '7990 +0.63']);
    expect(journal('49.50')).toEqual(['6310 +50.00', '2130 -49.50', '2110 -0.50']);
  });

  it('lets the advance that takes the rest of due take the rest of the payable', () => {
    const rates = [{ from: 'EUR', to: 'USD', date: '2026-03-02', rate: '3' }];
    const advances = ['A1', 'A2'].map((id) =>
      advance({ id, currency: 'USD', outstanding: '50.00', ledgerOutstanding: '17.00' }),
    );
    const claim = { currency: 'USD', advances: [{ advance: 'A1' }, { advance: 'A2' }] };
    const journal = sides(run({ lines: [line({ currency: 'USD' })], claim, book: { rates, advances } }).journal);
    expect(journal).toEqual([
      '6310 +33.33',
      '2110 -33.33',
      '2110 +16.67',
      '1310 -17.00',
      '7990 +0.33',
      '2110 +16.66',
      '1310 -17.00',
      '7990 +0.34',
    ]);
  });

  it('pays contractors as suppliers', () => {
    expect(sides(run({ lines: [line()], claim: { claimant: 'P2' } }).journal)).toEqual([
      '6310 +100.00',
      '2120 -100.00',
    ]);
  });

  it('converts an advance in a third currency at the posting date, within its cap', () => {
    const rates = [{ from: 'EUR', to: 'USD', date: '2026-03-31', rate: '1.25' }];
    const book = { advances: [advance({ currency: 'USD', outstanding: '100.00', ledgerOutstanding: '90.00' })], rates };
    const result = run({ lines: [line()], claim: { advances: [{ advance: 'A1', upTo: '40.00' }] }, book });
    expect(result.settlement.advances[0]).toEqual({
      advance: 'A1',
      applied: '40.00',
      advancePart: '50.00',
      ledgerPart: '45.00',
      left: '50.00',
    });
    const missing = run({ lines: [line()], claim: { advances: [{ advance: 'A1' }] }, book: { ...book, rates: [] } });
    expect(codes(missing)).toEqual(['stop rate-missing']);
    expect(missing.journal).toEqual([]);
  });
});
