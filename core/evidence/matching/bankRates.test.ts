import { describe, expect, it } from 'vitest';
import { byBankRate, type Settled } from './bankRates.ts';
import { pairUp } from './pairUp.ts';

const took = (amount: bigint, settledAmount: bigint, date: string): Settled => ({
  amount,
  currency: 'KES',
  settledAmount,
  settledCurrency: 'EUR',
  date,
});
const stated = { amount: 500000n, currency: 'KES', date: '2026-03-12' };

describe('what an amount comes to at the bank’s own rate', () => {
  it('is by the charge nearest in time, the later of two', () => {
    const all = [
      took(100000n, 700n, '2026-03-02'),
      took(100000n, 710n, '2026-03-10'),
      took(100000n, 720n, '2026-03-14'),
    ];
    expect(byBankRate(all, stated, 'EUR')).toEqual({ amount: 3600n, currency: 'EUR', bankOn: '2026-03-14' });
    expect(byBankRate(all.slice(0, 2), stated, 'EUR')!.amount).toBe(3550n);
  });
  it('is by one that came back as well, and rounds half away from zero', () => {
    expect(byBankRate([took(-1000n, -7n, '2026-03-12')], { ...stated, amount: 500n }, 'EUR')!.amount).toBe(4n);
  });
  it('is not known by charges of other currencies, of another month, or of nothing', () => {
    expect(byBankRate([took(100000n, 700n, '2026-02-20')], stated, 'EUR')).toBeNull();
    expect(byBankRate([took(100000n, 700n, '2026-03-12')], stated, 'USD')).toBeNull();
    expect(byBankRate([took(0n, 0n, '2026-03-12')], stated, 'EUR')).toBeNull();
  });
  it('makes a pair, and says by which rate', () => {
    const estimate = byBankRate([took(100000n, 710n, '2026-03-10')], stated, 'EUR')!;
    const line = { id: 'line', ...stated, merchant: 'Savanna Lodge', estimates: [estimate] };
    const charge = { id: 'charge', amount: 3610n, currency: 'EUR', date: '2026-03-13', merchant: 'SAVANNA LODGE NBO' };
    const [pair] = pairUp([line], [charge]);
    expect(pair!.differs).toBe("35.50 EUR at the bank's own rate of 2026-03-10, 1.6 % apart");
    expect(pairUp([{ ...line, estimates: [] }], [charge])).toEqual([]);
  });
});
