import { describe, expect, it } from 'vitest';
import { confirmationOf, faultOf, isReady, surenessOf, titleOf, typedOf } from './facts.ts';

const found = (value: string, sure = 'sure') => ({ value, sure });
const reading = {
  amount: found('12.50'),
  currency: found('EUR'),
  date: found('2026-11-02'),
  merchant: found('Quay Stores', 'likely'),
  taxes: [{ rate: '23', base: '10.16', tax: '2.34', at: 'page 1' }],
};
const receipt = (fields: object = {}) =>
  ({ name: 'scan.png', revision: 3, confirmed: null, reading, ...fields }) as never;
const confirmed = {
  amount: '9.00',
  currency: 'GBP',
  date: '2026-11-03',
  merchant: 'Ferry',
  taxNumber: null,
  cardDigits: '4410',
  taxes: [],
};
const typed = (fields: object = {}) =>
  ({
    amount: '12.50',
    currency: 'eur',
    date: '2026-11-02',
    merchant: ' Quay ',
    cardDigits: '',
    taxNumber: ' ',
    ...fields,
  }) as never;

describe('what stands in a field', () => {
  it('is what was confirmed, else what was read', () => {
    expect(typedOf(receipt())).toMatchObject({ amount: '12.50', merchant: 'Quay Stores', cardDigits: '' });
    expect(typedOf(receipt({ confirmed }))).toMatchObject({ amount: '9.00', taxNumber: '', cardDigits: '4410' });
  });
  it('is as sure as the reader until a person says otherwise', () => {
    expect(surenessOf(receipt(), 'merchant', typedOf(receipt()))).toBe('likely');
    expect(surenessOf(receipt(), 'amount', typed({ amount: '12.60' }))).toBe('by you');
    expect(surenessOf(receipt(), 'cardDigits', typed({ cardDigits: '4410' }))).toBe('by you');
    expect(surenessOf(receipt(), 'cardDigits', typed())).toBe('not found');
    expect(surenessOf(receipt({ confirmed }), 'amount', typed())).toBe('by you');
  });
});

describe('what is wrong with a field', () => {
  it.each([
    ['amount', { amount: '' }, 'Enter the total of the receipt.'],
    ['amount', { amount: '12.505' }, 'Enter an amount such as 12.50, with the decimals of its currency.'],
    ['amount', { amount: '12.5' }, null],
    [
      'amount',
      { amount: '12.5', currency: 'JPY' },
      'Enter an amount such as 12.50, with the decimals of its currency.',
    ],
    ['currency', { currency: 'EURO' }, 'Enter a currency code such as EUR.'],
    ['date', { date: '2026-02-30' }, 'Enter the date of the purchase.'],
    ['merchant', { merchant: '  ' }, 'Enter who sold.'],
    ['cardDigits', { cardDigits: '123' }, 'Enter four digits, or nothing.'],
    ['cardDigits', { cardDigits: '' }, null],
  ])('%s %j', (field, fields, says) => {
    expect(faultOf(field as never, typed(fields))).toBe(says);
  });
});

describe('what is sent', () => {
  it('is read from what was typed, with the taxes that were read', () => {
    expect(confirmationOf(receipt(), typed({ amount: '12,5' }))).toEqual({
      revision: 3,
      amount: '12.50',
      currency: 'EUR',
      date: '2026-11-02',
      merchant: 'Quay',
      taxNumber: null,
      cardDigits: null,
      taxes: [{ rate: '23', base: '10.16', tax: '2.34' }],
    });
    expect(confirmationOf(receipt({ confirmed }), typed())?.taxes).toEqual([]);
  });
  it('is nothing while a field is wrong', () => {
    expect(confirmationOf(receipt(), typed({ date: '' }))).toBeNull();
  });
});

it('a receipt is ready once every fact of a line is sure or confirmed', () => {
  expect(isReady(receipt())).toBe(false);
  expect(isReady(receipt({ reading: { ...reading, merchant: found('Quay') } }))).toBe(true);
  expect(isReady(receipt({ confirmed, reading: null }))).toBe(true);
});

it('a receipt is called by who sold, unless that is doubtful', () => {
  expect(titleOf(receipt())).toBe('Quay Stores');
  expect(titleOf(receipt({ reading: { merchant: found('Qu4y', 'doubtful') } }))).toBe('scan.png');
  expect(titleOf(receipt({ confirmed }))).toBe('Ferry');
});
