import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal, sides, valid } from '../../test/fixtures/caseBuilder.ts';
import type { CaseParts } from '../../test/fixtures/caseBuilder.ts';
import { assess } from './assess.ts';
import { NO_EVIDENCE } from '../evidence/comparisons/tie.types.ts';
import { previewCase } from '../evidence/comparisons/previewCase.ts';

const run = (parts: CaseParts) => assess(valid(makeCase(parts)));
const codes = (result: ReturnType<typeof assess>) =>
  result.findings.map((f) => `${f.severity} ${f.code} ${f.line ?? ''}${f.item ?? ''}`.trim());

describe('the worked examples of the rules', () => {
  it('a: splits a taxed line over three cost centres', () => {
    const shares = ['410', '420', '430'].map((costCentre) => ({ coding: { costCentre } }));
    const taxed = line({
      amount: '100.01',
      tax: [{ code: 'IE-23' }],
      receipt: { taxNumber: 'IE1' },
      split: { by: 'equal', shares },
    });
    const result = run({ lines: [taxed], entity: { taxNumberRequired: true } });
    const part = result.lines[0]!.parts[0]!;
    expect(part.tax[0]).toMatchObject({ net: '81.31', tax: '18.70', recoverable: '18.70' });
    expect(part.shares.map((s) => [s.gross, s.recoverable, s.cost])).toEqual([
      ['33.34', '6.24', '27.10'],
      ['33.34', '6.23', '27.11'],
      ['33.33', '6.23', '27.10'],
    ]);
    expect(sides(result.journal)).toEqual(['6310 +27.10', '6310 +27.11', '6310 +27.10', '1410 +18.70', '2110 -100.01']);
    expect(result.findings).toEqual([]);
  });

  it('b: money spent in the advance’s own currency counts unit for unit', () => {
    const advances = [{ id: 'A1', person: 'P1', currency: 'KES', outstanding: '10000.00', ledgerOutstanding: '71.43' }];
    const rates = [
      { from: 'EUR', to: 'KES', date: '2026-03-02', rate: '140' },
      { from: 'EUR', to: 'KES', date: '2026-03-31', rate: '155' },
    ];
    const result = run({
      lines: [line({ amount: '10000.00', currency: 'KES' })],
      claim: { advances: [{ advance: 'A1' }] },
      book: { advances, rates },
    });
    expect(result.lines[0]!.claimAmount).toBe('71.43');
    expect(result.settlement).toMatchObject({
      due: '71.43',
      payable: '0.00',
      advances: [{ applied: '71.43', advancePart: '10000.00', ledgerPart: '71.43', left: '0.00' }],
    });
    expect(sides(result.journal)).toEqual(['6310 +71.43', '2110 -71.43', '2110 +71.43', '1310 -71.43']);
  });

  it('c: nothing due, and what is left in the ledger is an exchange difference', () => {
    const card = line({
      id: '2',
      paidBy: 'card',
      personal: true,
      amount: '108.34',
      currency: 'USD',
      rate: { kind: 'card', settled: { amount: '98.49', currency: 'EUR' } },
    });
    const rates = [{ from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.0834' }];
    const result = run({
      lines: [line({ amount: '108.34', currency: 'USD' }), card],
      claim: { currency: 'USD' },
      book: { rates },
    });
    expect(result.settlement.due).toBe('0.00');
    expect(sides(result.journal)).toEqual(['6310 +100.00', '2130 -98.49', '7990 -1.51']);
  });

  it('the case of the document format gives the assessment printed beside it', () => {
    const document = JSON.parse(readFileSync(new URL('../../test/fixtures/case.json', import.meta.url), 'utf8'));
    const result = assess(valid(document));
    expect(result.settlement).toEqual({
      currency: 'EUR',
      due: '216.53',
      advances: [{ advance: 'A1', applied: '120.00', advancePart: '120.00', ledgerPart: '120.00', left: '80.00' }],
      payable: '96.53',
      receivable: '0.00',
    });
    expect(result.lines[0]!.parts[0]!.tax[0]).toEqual({
      code: 'PT-6',
      component: null,
      net: '190.57',
      tax: '11.43',
      recoverable: '0.00',
      ledgerNet: '190.57',
      ledgerTax: '11.43',
      ledgerRecoverable: '0.00',
    });
    expect(codes(result)).toEqual(['note tax-foreign 1']);
  });
});

describe('rates', () => {
  const usd = { from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.0834' };

  it('stops without a rate that is young enough, leaves the figure empty and makes no journal', () => {
    const result = run({ lines: [line({ currency: 'USD', date: '2026-03-10' })], book: { rates: [usd] } });
    expect(codes(result)).toEqual(['stop rate-missing 1']);
    expect(result.lines[0]).toMatchObject({ claimAmount: null, ledgerAmount: null });
    expect(result.settlement).toMatchObject({ due: null, payable: null, receivable: null });
    expect(result.journal).toEqual([]);
    expect(run({ lines: [line({ currency: 'USD', date: '2026-03-09' })], book: { rates: [usd] } }).findings).toEqual(
      [],
    );
  });

  it('takes the entity’s choice of date', () => {
    const rates = [usd, { ...usd, date: '2026-03-08', rate: '1.25' }, { ...usd, date: '2026-03-31', rate: '2' }];
    const amount = (rateDate: 'line' | 'submitted' | 'posting') =>
      run({ lines: [line({ currency: 'USD' })], book: { rates }, entity: { rateDate } }).lines[0]!.claimAmount;
    expect([amount('line'), amount('submitted'), amount('posting')]).toEqual(['92.30', '80.00', '50.00']);
  });

  it('converts parts of a card charge in proportion to what the bank took', () => {
    const charge = line({
      paidBy: 'card',
      card: '4410',
      amount: '90.00',
      currency: 'USD',
      rate: { kind: 'card', settled: { amount: '83.40', currency: 'EUR' } },
      items: [
        { id: 'a', category: 'supplies', amount: '80.00' },
        { id: 'b', amount: '10.00', personal: true },
      ],
    });
    const result = run({ lines: [charge] });
    expect(result.lines[0]!.parts.map((p) => p.claimAmount)).toEqual(['74.13', '9.27']);
    expect(sides(result.journal)).toEqual(['6310 +74.13', '2131 -83.40', '1320 +9.27']);
    expect(result.journal[1]).toMatchObject({ currency: 'EUR', amount: '-83.40' });
  });

  it('carries an own rate on to the ledger and asks when it is off or cannot be checked', () => {
    const own = (value: string) => line({ amount: '20.00', currency: 'GBP', rate: { kind: 'own', value } });
    const rates = [{ from: 'EUR', to: 'GBP', date: '2026-03-02', rate: '0.8412' }];
    expect(run({ lines: [own('1.19')], book: { rates } })).toMatchObject({
      lines: [{ claimAmount: '23.80' }],
      findings: [],
    });
    expect(codes(run({ lines: [own('1.26')], book: { rates } }))).toEqual(['ask rate-off 1']);
    expect(codes(run({ lines: [own('1.19')] }))).toEqual(['ask rate-off 1']);
  });

  it('accepts an own rate exactly at the tolerance', () => {
    const rates = [{ from: 'EUR', to: 'GBP', date: '2026-03-02', rate: '1.25' }];
    const at = (value: string) =>
      codes(run({ lines: [line({ currency: 'GBP', rate: { kind: 'own', value } })], book: { rates } }));
    expect([at('0.84'), at('0.76'), at('0.840001'), at('0.759999')]).toEqual([
      [],
      [],
      ['ask rate-off 1'],
      ['ask rate-off 1'],
    ]);
  });

  it('converts each amount straight from the line, never twice', () => {
    const rates = [
      { from: 'EUR', to: 'JPY', date: '2026-03-02', rate: '163.4' },
      { from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.0834' },
    ];
    const result = run({
      lines: [line({ amount: '1', currency: 'JPY' })],
      claim: { currency: 'USD' },
      book: { rates },
    });
    expect(result.lines[0]).toMatchObject({ claimAmount: '0.01', ledgerAmount: '0.01' });
  });
});

describe('coding', () => {
  it('goes share over item over line over claim, and may name the account', () => {
    const split = {
      by: 'equal' as const,
      shares: [{ coding: { costCentre: '430', account: '6999' } as Record<string, string> }, { coding: {} }],
    };
    const items = [{ id: 'a', category: 'supplies', amount: '100.00', coding: { fund: '20', project: 'P' }, split }];
    const result = run({ lines: [line({ items, coding: { costCentre: '420', fund: '10' } })] });
    expect(result.lines[0]!.parts[0]!.shares.map((s) => [s.account, s.coding])).toEqual([
      ['6999', { costCentre: '430', fund: '20', project: 'P' }],
      ['6310', { costCentre: '420', fund: '20', project: 'P' }],
    ]);
    expect(result.journal.slice(0, 2).map((r) => [r.account, r.coding.account])).toEqual([
      ['6999', undefined],
      ['6310', undefined],
    ]);
  });
});

describe('quantity × unit price', () => {
  const priced = (amount: string, count: string, unitPrice: string, currency = 'EUR') =>
    run({ lines: [line({ amount, currency, quantity: { count, unitPrice } })] })
      .findings.filter((f) => f.code === 'computed-off')
      .map((f) => [f.severity, f.difference]);

  it('is the amount, rounded once, half away from zero', () => {
    expect(priced('100.00', '3', '33.333333')).toEqual([]);
    expect(priced('0.13', '0.5', '0.25')).toEqual([]);
    expect(priced('-0.13', '-0.5', '0.25')).toEqual([]);
    expect(priced('0.12', '0.5', '0.25')).toEqual([['stop', '-0.01']]);
    expect(priced('201', '2', '100.5', 'JPY')).toEqual([]);
  });

  it('holds for items and for a line with items, before what is cut; figures go on from the amount given', () => {
    const quantity = { count: '2', unitPrice: '30.00' };
    const cut = { amount: '10.00', reason: 'x' };
    const items = [
      { id: 'a', category: 'supplies', amount: '60.00', quantity, cut },
      { id: 'b', category: 'supplies', amount: '40.00', quantity },
    ];
    const result = run({ lines: [line({ items, quantity: { count: '1', unitPrice: '100' } })] });
    expect(codes(result)).toEqual(['stop computed-off 1b', 'note cut 1a']);
    expect(result.settlement.payable).toBe('90.00');
    expect(result.journal.length).toBeGreaterThan(0);
  });

  it('takes at most six decimal places', () => {
    const quantity = { count: '1.0000001', unitPrice: '1' };
    expect(refusal(makeCase({ lines: [line({ quantity })] }))).toContain('count: has more than 6 decimal places');
  });
});

describe('items', () => {
  it('add up to the line through discounts, in every currency', () => {
    const rates = [{ from: 'EUR', to: 'USD', date: '2026-03-02', rate: '3' }];
    const items = ['0.50', '0.50', '-0.50', '0.50'].map((amount, i) => ({ id: `i${i}`, category: 'supplies', amount }));
    const result = run({ lines: [line({ amount: '1.00', currency: 'USD', items })], book: { rates } });
    expect(result.lines[0]!.claimAmount).toBe('0.33');
    expect(result.lines[0]!.parts.map((p) => p.claimAmount)).toEqual(['0.17', '0.16', '-0.16', '0.16']);
  });

  it('stop with the difference when they do not, and nothing is posted', () => {
    const result = run({ lines: [line({ items: [{ id: 'a', category: 'supplies', amount: '96.00' }] })] });
    expect(result.findings[0]).toMatchObject({ code: 'items-off', severity: 'stop', difference: '4.00' });
    expect(result.journal).toEqual([]);
  });
});

describe('previews', () => {
  it('is shown of one line although the claimant said a word to another', () => {
    const explanations = [{ line: '2', code: 'meal', about: 'Above.', text: 'A guest came.' }];
    const document = valid(makeCase({ lines: [line(), line({ id: '2' })], claim: { explanations } }));
    const preview = previewCase(document, NO_EVIDENCE).withLines([line({ amount: '7.00' })]);
    expect(preview.ok && preview.assessment.lines[0]!.claimAmount).toBe('7.00');
  });
  it('give the same figures as assessing the changed case', () => {
    const lines = [line(), line({ id: '2', amount: '10.01', tax: [{ code: 'IE-23' }] })];
    const document = valid(makeCase({ lines }));
    const changed = {
      ...lines[1]!,
      split: {
        by: 'percent' as const,
        shares: [
          { coding: { fund: '20' } as Record<string, string>, value: '33' },
          { coding: {}, value: 'rest' },
        ],
      },
    };
    const preview = previewCase(document, NO_EVIDENCE).withLines([changed]);
    expect(preview.ok && preview.assessment).toEqual(assess(valid(makeCase({ lines: [lines[0]!, changed] }))));
  });

  it('change several lines at once', () => {
    const lines = [line(), line({ id: '2' }), line({ id: '3', amount: '5.00' })];
    const changed = lines.slice(1).map((l) => ({ ...l, coding: { fund: '20' } }));
    const preview = previewCase(valid(makeCase({ lines })), NO_EVIDENCE).withLines(changed);
    expect(preview.ok && preview.assessment).toEqual(assess(valid(makeCase({ lines: [lines[0]!, ...changed] }))));
  });
  it('say what cannot be read instead of failing', () => {
    const preview = previewCase(valid(makeCase({ lines: [line()] })), NO_EVIDENCE).withLines([
      line({ tax: [{ code: 'IE-23', tax: '1.234' }] }),
    ]);
    expect(preview).toEqual({
      ok: false,
      problem: {
        path: ['claim', 'lines', 0, 'tax', 0, 'tax'],
        message: '"1.234" is not an amount with the decimals of EUR',
      },
    });
  });
});
