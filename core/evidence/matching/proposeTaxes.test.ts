import { describe, expect, it } from 'vitest';
import type { TaxCode } from '../../documents/case.schema.ts';
import { countryOfTaxNumber, proposeTaxes } from './proposeTaxes.ts';

const code = (name: string, country: string, rate: string, more: Partial<TaxCode> = {}): TaxCode => ({
  code: name,
  country,
  rate,
  account: '1410',
  ...more,
});
const CODES = [
  code('IE-23', 'IE', '23'),
  code('IE-9', 'IE', '9', { to: '2026-06-30' }),
  code('IE-SELF', 'IE', '13.5', { selfAssessed: true }),
  code('PT-23', 'PT', '23'),
];
const line = { amount: '123.00', currency: 'EUR', country: 'IE', date: '2026-03-02' };
const tax = (rate: string | null, base: string | null, amount: string | null) => ({ rate, base, tax: amount });

describe('taxes proposed from a receipt', () => {
  it('take the code of the country and rate that holds on the day', () => {
    expect(proposeTaxes([tax('23.0', '100.00', '23.00')], CODES, line)).toEqual([
      { code: 'IE-23', tax: '23.00', gross: '123.00' },
    ]);
    expect(proposeTaxes([tax('23', '100.00', '23.00')], CODES, { ...line, country: 'PT' })[0]!.code).toBe('PT-23');
    expect(proposeTaxes([tax('9', '10.00', '0.90')], CODES, line)[0]!.code).toBe('IE-9');
    expect(proposeTaxes([tax('9', '10.00', '0.90')], CODES, { ...line, date: '2026-07-01' })).toEqual([]);
    expect(proposeTaxes([tax('13.5', '10.00', '1.35')], CODES, line)).toEqual([]);
  });
  it('are none without a country, a rate or an amount', () => {
    const one = [tax('23', '100.00', '23.00')];
    expect(proposeTaxes(one, CODES, { ...line, country: null })).toEqual([]);
    expect(proposeTaxes([tax(null, '100.00', '23.00')], CODES, line)).toEqual([]);
    expect(proposeTaxes([tax('23', '100.00', null)], CODES, line)).toEqual([]);
    expect(proposeTaxes([tax('23', '100.00', '23.001')], CODES, line)).toEqual([]);
  });
  it('fit into the amount, or cover it alone, or are none', () => {
    const two = [tax('23', '50.00', '11.50'), tax('9', '50.00', '4.50')];
    expect(proposeTaxes(two, CODES, line)).toHaveLength(2);
    expect(proposeTaxes(two, CODES, { ...line, amount: '100.00' })).toEqual([]);
    expect(proposeTaxes([two[0]!, tax('9', null, '4.50')], CODES, line)).toEqual([]);
    expect(proposeTaxes([tax('23', '100.00', '23.00')], CODES, { ...line, amount: '61.50' })).toEqual([
      { code: 'IE-23', tax: '23.00', gross: null },
    ]);
  });
});

it('the country of a tax number is one the book knows', () => {
  expect(countryOfTaxNumber('pt 504426974', CODES)).toBe('PT');
  expect(countryOfTaxNumber('DE123456789', CODES)).toBeNull();
  expect(countryOfTaxNumber(null, CODES)).toBeNull();
});
