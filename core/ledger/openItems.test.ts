import { describe, expect, it } from 'vitest';
import { line, makeCase, valid } from '../../test/fixtures/caseBuilder.ts';
import { assessLine } from '../assess/assessLine.ts';
import { openCase } from '../figures/openCase.ts';
import { rateTable } from '../figures/currency/rateTable.ts';
import { openItemMovements } from './openItemMovements.ts';
import { recode } from './recode.ts';
import { accrue } from './accrue.ts';
import { revalue } from './revalue.ts';
import { netReceivables, settleOpenItem, type OpenItem } from './settleOpenItem.ts';

const payable: OpenItem = { kind: 'payable', account: '2110', currency: 'USD', open: 10000n, booked: 9001n };
const settle = (item: OpenItem, amount: bigint, bank: bigint) =>
  settleOpenItem(item, {
    amount,
    bank,
    bankAccount: '1010',
    exchangeAccount: '7990',
    ledgerCurrency: 'EUR',
    text: 'Payment',
  });
const short = (rows: { account: string; debit: bigint }[]) => rows.map((r) => [r.account, r.debit]);

describe('paying and collecting', () => {
  it('clears a payable at its booked value, the difference being gain or loss', () => {
    expect(short(settle(payable, 10000n, 9100n).rows)).toEqual([
      ['2110', 9001n],
      ['1010', -9100n],
      ['7990', 99n],
    ]);
    expect(short(settle(payable, 10000n, 9001n).rows)).toEqual([
      ['2110', 9001n],
      ['1010', -9001n],
    ]);
  });
  it('moves what is open also where that is worth nothing in the ledger, which has no row for it', () => {
    const { rows } = settle({ ...payable, kind: 'staff advance', account: '1310', open: 900n, booked: 1n }, 200n, 1n);
    expect(short(rows)).toEqual([
      ['1310', 0n],
      ['1010', 1n],
      ['7990', -1n],
    ]);
    expect(openItemMovements(rows)).toMatchObject([{ position: 3, amount: -200n, ledgerAmount: 0n }]);
  });
  it('leaves exactly nothing after parts, whatever they round to', () => {
    let item = payable;
    let cleared = 0n;
    for (const part of [3333n, 3333n, 3334n]) {
      const { rows, left } = settle(item, part, 3000n);
      cleared += rows[0]!.debit;
      item = { ...item, ...left };
    }
    expect([cleared, item.open, item.booked]).toEqual([9001n, 0n, 0n]);
    expect(settle(payable, 3334n, 3000n).rows[0]!.debit).toBe(3001n);
  });
  it('takes receivables and advances back from the other side', () => {
    expect(short(settle({ ...payable, kind: 'staff advance', account: '1310' }, 10000n, 8900n).rows)).toEqual([
      ['1310', -9001n],
      ['1010', 8900n],
      ['7990', 101n],
    ]);
  });
  it('refuses more than what is open', () => {
    expect(() => settle(payable, 10001n, 1n)).toThrow(RangeError);
    expect(() => settle(payable, 0n, 0n)).toThrow(RangeError);
  });
  it('nets receivables from the next payment, oldest first', () => {
    expect(netReceivables(100n, [30n, 90n, 10n])).toEqual({ paid: 0n, netted: [30n, 70n, 0n] });
    expect(netReceivables(100n, [30n])).toEqual({ paid: 70n, netted: [30n] });
  });
});

describe('at the end of a period', () => {
  it('accrues the cost net of recoverable tax', () => {
    const document = valid(
      makeCase({ lines: [line({ amount: '123.00', tax: [{ code: 'IE-23' }] }), line({ id: '2', currency: 'USD' })] }),
    );
    document.book.entities[0]!.accounts.accruals = '2190';
    const open = openCase(document);
    const { rows, without } = accrue(
      open,
      document.claim.lines.map((l) => assessLine(open, l)),
    );
    expect(short(rows)).toEqual([
      ['6310', 10000n],
      ['2190', -10000n],
    ]);
    expect(without).toEqual(['2']);
  });
  it('revalues open foreign items and says which rates are missing', () => {
    const rates = rateTable({
      rates: [{ from: 'USD', to: 'EUR', date: '2026-03-31', rate: '0.88' }],
      pivot: null,
      maxRateAge: 7,
    });
    const items: OpenItem[] = [
      payable,
      { ...payable, kind: 'receivable', account: '1320' },
      { ...payable, currency: 'GBP' },
      { ...payable, currency: 'EUR', booked: 10000n },
    ];
    const { rows, missing } = revalue(items, rates, '2026-03-31', 'EUR', '7990');
    expect(short(rows)).toEqual([
      ['2110', 201n],
      ['7990', -201n],
      ['1320', -201n],
      ['7990', 201n],
    ]);
    expect(missing).toEqual(['GBP']);
  });
  it('moves a posted share without touching what was paid', () => {
    const posted = {
      account: '6210',
      coding: { fund: '10' },
      debit: 500n,
      currency: 'USD',
      amount: 550n,
      line: '1',
      item: null,
      taxCode: null,
      text: 'Room',
    };
    expect(recode(posted, { account: '6210', coding: { grant: 'G' } })).toMatchObject([
      { debit: -500n, amount: -550n, coding: { fund: '10' } },
      { debit: 500n, amount: 550n, coding: { grant: 'G' } },
    ]);
  });
});
