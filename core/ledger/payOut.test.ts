import { describe, expect, it } from 'vitest';
import { openItemMovements } from './openItemMovements.ts';
import { payOut } from './payOut.ts';

const accounts = {
  claimantPayable: '2110',
  supplierPayable: '2120',
  cardClearing: '2130',
  centralClearing: '2140',
  staffAdvances: '1310',
  staffReceivable: '1320',
  exchangeDifference: '7990',
  bank: '1010',
};

describe('paying an advance out', () => {
  it('books it at what the bank took, and opens it in its own currency', () => {
    const rows = payOut(
      { id: 'A-1', currency: 'BHD', amount: 12_500n },
      { bank: 3050n, ledgerCurrency: 'EUR', accounts },
    );
    expect(rows.map((r) => [r.account, r.debit, r.currency, r.amount])).toEqual([
      ['1310', 3050n, 'BHD', 12_500n],
      ['1010', -3050n, 'EUR', -3050n],
    ]);
    expect(openItemMovements(rows)).toEqual([
      {
        kind: 'staff advance',
        of: 'A-1',
        position: 1,
        account: '1310',
        currency: 'BHD',
        amount: 12_500n,
        ledgerAmount: 3050n,
      },
    ]);
  });
  it('needs a bank account', () => {
    const { bank: _, ...without } = accounts;
    expect(() =>
      payOut({ id: 'A', currency: 'EUR', amount: 1n }, { bank: 1n, ledgerCurrency: 'EUR', accounts: without }),
    ).toThrow(RangeError);
  });
});
