import { describe, expect, it } from 'vitest';
import { assess } from '../../core/assess/assess.ts';
import type { TaxCode } from '../../core/documents/case.schema.ts';
import { line, makeCase, valid } from '../fixtures/caseBuilder.ts';

function taxIn(amount: string, code: Partial<TaxCode>, category: { recovery: string } = { recovery: '100' }) {
  const full = { code: 'T', country: 'IE', ...code } as TaxCode;
  const categories = [{ id: 'supplies', account: '6310', ...category }];
  const result = assess(
    valid(makeCase({ lines: [line({ amount, tax: [{ code: 'T' }] })], book: { taxCodes: [full], categories } })),
  );
  return result.lines[0]!.parts[0]!.tax.map((row) => ({ tax: row.tax, recoverable: row.recoverable }));
}
const single = (rate: string, recovery = '100') => ({ rate, account: '1', recovery });

/** Source: HMRC Notice 700, the VAT fractions. From memory of the notice. */
describe('VAT fractions', () => {
  const fractions: [string, string, string, string][] = [
    ['20', '120.00', '20.00', '1/6'],
    ['17.5', '117.50', '17.50', '7/47'],
    ['15', '23.00', '3.00', '3/23'],
    ['5', '21.00', '1.00', '1/21'],
  ];
  it.each(fractions)('%s %% in %s is %s (%s)', (rate, gross, tax) => {
    expect(taxIn(gross, single(rate))[0]!.tax).toBe(tax);
  });
});

/** Source: CRA GST/HST guides, reimbursement factors 4/104, 12/112 and 14/114. From memory. */
describe('reimbursement factors', () => {
  it.each([
    ['4', '104.00', '4.00'],
    ['12', '112.00', '12.00'],
    ['14', '114.00', '14.00'],
  ])('%s %% in %s is %s', (rate, gross, tax) => {
    expect(taxIn(gross, single(rate))[0]!.tax).toBe(tax);
  });
});

/** Source: CRA guide RC4034, public service bodies' rebate: a charity in Ontario gets 50 % of the federal and 82 % of the provincial part. Own numbers. */
it('public body rebate: 113.00 with 13 % gives back 2.50 and 6.56', () => {
  const components = [
    { id: 'federal', rate: '5', on: 'net' as const, account: '1', recovery: '50' },
    { id: 'provincial', rate: '8', on: 'net' as const, account: '2', recovery: '82' },
  ];
  expect(taxIn('113.00', { components }).map((t) => t.recoverable)).toEqual(['2.50', '6.56']);
});
