import { expect, it } from 'vitest';
import { readMoney } from './readMoney.ts';

it.each([
  ['12,5', 'EUR', '12.50 EUR'],
  ['1 234.5', 'EUR', '1234.50 EUR'],
  ['900 jpy', 'EUR', '900 JPY'],
  ['BHD 1.234', 'EUR', '1.234 BHD'],
  ['-3', 'USD', '-3.00 USD'],
])('%s typed where %s is usual is %s', (text, currency, says) => {
  const read = readMoney(text, currency);
  expect(read.ok && `${read.amount} ${read.currency}`).toBe(says);
});

it.each(['', 'EUR', 'twelve', '12 XXY', '1.234 EUR', '9.5 JPY', 'EUR 5 USD', '1,234 BHD'])(
  '%s says what to do',
  (text) => {
    const read = readMoney(text, 'EUR');
    expect(read.ok ? null : read.problem).toMatch(/^Type an amount|is not a currency/);
  },
);
