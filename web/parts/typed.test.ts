import { describe, expect, it } from 'vitest';
import { readTyped, readTypedAmount } from './typed.ts';

describe('a number as it is typed', () => {
  it.each([
    ['1 234,5', '1234.5'],
    ['1\u00a0234.50', '1234.50'],
    ["1'234.5", '1234.5'],
    ['1.234,56', '1234.56'],
    ['1,234.56', '1234.56'],
    ['−3', '-3'],
    ['007', '7'],
    [',5', '0.5'],
    ['1e9', null],
    ['', null],
    ['.', null],
    ['1,2,3', null],
    ['1.2.3', null],
    ['12 EUR', null],
  ])('%j is %j', (text, number) => {
    expect(readTyped(text)).toBe(number);
  });
});

describe('an amount as it is typed', () => {
  it.each([
    ['33,3', 'EUR', '33.30'],
    ['33', 'EUR', '33.00'],
    ['33', 'JPY', '33'],
    ['1,5', 'BHD', '1.500'],
    ['33,333', 'EUR', '33.333'],
    ['1,234', 'BHD', null],
    ['1.234', 'BHD', '1.234'],
    ['0,5', 'BHD', '0.500'],
    ['1,234.500', 'BHD', '1234.500'],
    ['much', 'EUR', null],
  ])('%j in %s is %j', (text, currency, amount) => {
    expect(readTypedAmount(text, currency)).toBe(amount);
  });
});
