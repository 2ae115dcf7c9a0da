import { describe, expect, it } from 'vitest';
import { line, makeCase, valid } from '../../test/fixtures/caseBuilder.ts';
import { assess } from '../assess/assess.ts';
import { settlementSum } from '../figures/settlement/settlementSum.ts';
import { reverseRows } from './reverseRows.ts';
import { traceRows } from './traceRows.ts';

describe('tracing a journal row to its share', () => {
  it('skips shares that cost nothing, and rows that are no share', () => {
    const split = {
      by: 'percent' as const,
      shares: [
        { coding: {}, value: '0' },
        { coding: {}, value: '70' },
        { coding: {}, value: 'rest' },
      ],
    };
    const result = assess(
      valid(makeCase({ lines: [line({ tax: [{ code: 'IE-23' }], split }), line({ id: '2', paidBy: 'card' })] })),
    );
    expect(result.journal.map((row, i) => [row.account, row.line, traceRows(result)[i]])).toEqual([
      ['6310', '1', 1],
      ['6310', '1', 2],
      ['6310', '2', 0],
      ['1410', '1', null],
      ['2130', '2', null],
      ['2110', null, null],
    ]);
  });
});

describe('reversing', () => {
  it('exchanges the sides and negates the amount, twice giving the same again', () => {
    const rows = [
      { debit: 5n, credit: 0n, amount: 7n, account: '1' },
      { debit: 0n, credit: 5n, amount: -7n, account: '2' },
    ];
    expect(reverseRows(rows)).toEqual([
      { debit: 0n, credit: 5n, amount: -7n, account: '1' },
      { debit: 5n, credit: 0n, amount: 7n, account: '2' },
    ]);
    expect(reverseRows(reverseRows(rows))).toEqual(rows);
  });
});

describe('the settlement as a sum', () => {
  it('can be read aloud: claimed − company-paid − private − advances = to pay', () => {
    const lines = [
      line(),
      line({ id: '2', paidBy: 'card', amount: '30.00' }),
      line({ id: '3', paidBy: 'card', personal: true, amount: '12.00' }),
      line({ id: '4', paidBy: 'central', amount: '5.00' }),
    ];
    const advances = [{ id: 'A1', person: 'P1', currency: 'EUR', outstanding: '40.00', ledgerOutstanding: '40.00' }];
    const document = valid(makeCase({ lines, claim: { advances: [{ advance: 'A1' }] }, book: { advances } }));
    expect(settlementSum(document.claim, assess(document))).toEqual({
      currency: 'EUR',
      claimed: '147.00',
      companyPaid: '47.00',
      private: '12.00',
      advances: '40.00',
      toPay: '48.00',
    });
  });
  it('is empty where a figure is missing', () => {
    const document = valid(makeCase({ lines: [line({ currency: 'USD' })] }));
    expect(settlementSum(document.claim, assess(document))).toMatchObject({
      claimed: null,
      companyPaid: '0.00',
      toPay: null,
    });
  });
});
