import { describe, expect, it } from 'vitest';
import { isPossible, refOf, sideOf, wishOf } from './proposals.ts';

const data = {
  lines: [
    {
      ref: 'C-1031/2',
      claim: 'C-1031',
      line: '2',
      merchant: null,
      paidBy: 'own',
      date: '2026-11-02',
      amount: '5.00',
      currency: 'EUR',
    },
  ],
  charges: [
    {
      id: '7',
      merchant: 'Ferry',
      card: '4410',
      purchasedOn: '2026-11-01',
      amount: '9.00',
      left: '4.00',
      currency: 'EUR',
    },
  ],
  receipts: [{ id: '8', merchant: null, name: 'scan.png', date: null, amount: null, currency: null }],
} as never;

describe('a side of a pair', () => {
  it('is a line with how it was paid', () => {
    expect(sideOf(data, 'line', 'C-1031/2')).toMatchObject({ name: 'No merchant', what: 'C-1031, line 2, own money' });
  });
  it('is a charge with what is left of it', () => {
    expect(sideOf(data, 'charge', '7')).toMatchObject({ name: 'Ferry', what: 'card 4410', amount: '4.00' });
  });
  it('is a receipt by its file where nobody knows who sold', () => {
    expect(sideOf(data, 'receipt', '8')).toMatchObject({ name: 'scan.png', amount: null });
  });
  it('that has gone makes the pair impossible', () => {
    const [here, gone] = [sideOf(data, 'line', 'C-1031/2'), sideOf(data, 'charge', '9')];
    expect(gone.name).toBeNull();
    expect(isPossible({ left: [here], right: [gone] } as never)).toBe(false);
    expect(isPossible({ left: [here], right: [here] } as never)).toBe(true);
  });
});

it('a pair is asked for by claim and line, and by the charge or receipt', () => {
  expect(refOf('C-1031/2')).toEqual({ claim: 'C-1031', line: '2' });
  const pair = { left: ['C-1031/2', 'C-1032/1'], right: ['7'], differs: null } as never;
  expect(wishOf('charge', pair)).toEqual({
    lines: [
      { claim: 'C-1031', line: '2' },
      { claim: 'C-1032', line: '1' },
    ],
    charge: '7',
  });
  expect(wishOf('charge', { left: ['C-1031/2'], right: ['7'], differs: '0.01 EUR more' } as never)).toMatchObject({
    charge: '7',
    takeAmount: true,
  });
  const two = { left: ['C-1031/2'], right: ['7', '8'], differs: null } as never;
  expect(wishOf('charge', two)).toEqual({ lines: [{ claim: 'C-1031', line: '2' }], charges: ['7', '8'] });
});
