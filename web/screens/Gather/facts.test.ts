import { describe, expect, it } from 'vitest';
import { confirmationOf, faultOf, isConfirmable, isReady, surenessOf, taxFaultOf, titleOf, typedOf } from './facts.ts';

const TODAY = '2026-11-20';

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
    taxes: [],
    ...fields,
  }) as never;

describe('what stands in a field', () => {
  it('is what was confirmed, else what was read', () => {
    expect(typedOf(receipt())).toMatchObject({ amount: '12.50', merchant: 'Quay Stores', cardDigits: '' });
    expect(typedOf(receipt({ confirmed }))).toMatchObject({ amount: '9.00', taxNumber: '', cardDigits: '4410' });
  });
  it('is as sure as the reader until a person says otherwise', () => {
    expect(surenessOf(receipt(), 'merchant', 'Quay Stores')).toBe('likely');
    expect(surenessOf(receipt(), 'amount', '12.60')).toBe('by you');
    expect(surenessOf(receipt(), 'cardDigits', '4410')).toBe('by you');
    expect(surenessOf(receipt(), 'cardDigits', '')).toBe('not found');
    expect(surenessOf(receipt({ confirmed }), 'amount', '12.50')).toBe('by you');
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
    ['date', { date: '2026-11-21' }, 'This day has not come yet. Enter the date of the purchase.'],
    ['date', { date: TODAY }, null],
    ['merchant', { merchant: '  ' }, 'Enter who sold.'],
    ['cardDigits', { cardDigits: '123' }, 'Enter four digits, or nothing.'],
    ['cardDigits', { cardDigits: '' }, null],
  ])('%s %j', (field, fields, says) => {
    expect(faultOf(field as never, typed(fields), TODAY)).toBe(says);
  });
});

describe('what is wrong with a tax', () => {
  const tax = (fields: object) => ({ rate: '23', base: '10.16', tax: '2.34', ...fields });
  it.each([
    ['rate', {}, null],
    ['rate', { rate: '' }, null],
    ['rate', { rate: '8,875' }, null],
    ['rate', { rate: '101' }, 'Enter a rate from 0 to 100, or nothing.'],
    ['rate', { rate: '-1' }, 'Enter a rate from 0 to 100, or nothing.'],
    ['rate', { rate: 'x' }, 'Enter a rate from 0 to 100, or nothing.'],
    ['base', { base: '' }, null],
    ['base', { base: '99.00' }, 'This is more than the total.'],
    ['tax', { tax: '' }, 'Enter the tax.'],
    ['tax', { tax: '2.345' }, 'Enter an amount such as 2.34.'],
    ['tax', { tax: '12.51' }, 'This is more than the total.'],
  ])('%s %j', (field, fields, says) => {
    expect(taxFaultOf(field as never, tax(fields), typed())).toBe(says);
  });
});

describe('what is sent', () => {
  it('is read from what was typed, taxes with a rate and without', () => {
    const taxes = [
      { rate: '8,875', base: '', tax: '2,3' },
      { rate: '', base: '10.16', tax: '0.10' },
    ];
    expect(confirmationOf(receipt(), typed({ amount: '12,5', taxes }))).toEqual({
      revision: 3,
      amount: '12.50',
      currency: 'EUR',
      date: '2026-11-02',
      merchant: 'Quay',
      taxNumber: null,
      cardDigits: null,
      taxes: [
        { rate: '8.875', base: null, tax: '2.30' },
        { rate: null, base: '10.16', tax: '0.10' },
      ],
    });
  });
});

it('a receipt that was read whole can be confirmed with others, one that was not cannot', () => {
  const whole = { taxNumber: null, cardDigits: null, ...reading };
  expect(isConfirmable(receipt({ state: 'read', reading: whole }), TODAY)).toBe(true);
  expect(isConfirmable(receipt({ state: 'read', reading: { ...whole, amount: null } }), TODAY)).toBe(false);
  expect(isConfirmable(receipt({ state: 'read', reading: { ...whole, date: found('2027-01-02') } }), TODAY)).toBe(
    false,
  );
  expect(isConfirmable(receipt({ state: 'waiting', reading: null }), TODAY)).toBe(false);
  expect(isConfirmable(receipt({ state: 'read', reading: whole, confirmed }), TODAY)).toBe(false);
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
