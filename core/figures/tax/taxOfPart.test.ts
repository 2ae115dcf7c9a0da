import { describe, expect, it } from 'vitest';
import { line, makeCase, sides, valid, type CaseParts } from '../../../test/fixtures/caseBuilder.ts';
import { assess } from '../../assess/assess.ts';

const run = (parts: CaseParts) => assess(valid(makeCase(parts)));
const tax = (result: ReturnType<typeof assess>) => result.lines[0]!.parts[0]!.tax.map((t) => [t.tax, t.recoverable]);
const found = (result: ReturnType<typeof assess>) => result.findings.map((f) => `${f.severity} ${f.code}`);

describe('tax in a gross amount', () => {
  it('keeps the exact fraction to the end: 11.28 with 5 % and 7 % holds 0.705, so 0.71', () => {
    expect(tax(run({ lines: [line({ amount: '11.28', tax: [{ code: 'CA-5-7' }] })] }))).toEqual([
      ['0.50', '0.50'],
      ['0.71', '0.36'],
    ]);
  });

  it('computes tax on tax', () => {
    expect(tax(run({ lines: [line({ amount: '115.50', tax: [{ code: 'TAX-ON-TAX' }] })] })).map(([t]) => t)).toEqual([
      '10.00',
      '5.50',
    ]);
  });

  it('takes the receipt’s tax instead, divided over the components, and asks when it is more than a minor unit off', () => {
    const given = (amount: string) =>
      run({ lines: [line({ amount: '112.00', tax: [{ code: 'CA-5-7', tax: amount }] })] });
    expect(tax(given('12.01')).map(([t]) => t)).toEqual(['5.00', '7.01']);
    expect(found(given('12.01'))).toEqual([]);
    expect(given('12.02').findings[0]).toMatchObject({ code: 'tax-off', severity: 'ask', difference: '0.02' });
  });

  it('leaves what no entry covers outside tax', () => {
    const result = run({
      lines: [
        line({
          tax: [
            { code: 'IE-23', gross: '61.50' },
            { code: 'IE-0', gross: '20.00' },
          ],
        }),
      ],
    });
    expect(tax(result)).toEqual([
      ['11.50', '11.50'],
      ['0.00', '0.00'],
    ]);
    expect(sides(result.journal)).toEqual(['6310 +88.50', '1410 +11.50', '2110 -100.00']);
  });

  it('joins entries of one code into one journal row', () => {
    const result = run({
      lines: [
        line({
          tax: [
            { code: 'IE-23', gross: '12.30' },
            { code: 'IE-23', gross: '24.60' },
          ],
        }),
      ],
    });
    expect(result.journal.filter((r) => r.taxCode)).toMatchObject([{ taxCode: 'IE-23', debit: '6.90' }]);
  });

  it('keeps the sign of a refund', () => {
    expect(tax(run({ lines: [line({ amount: '-123.00', tax: [{ code: 'IE-23' }] })] }))).toEqual([
      ['-23.00', '-23.00'],
    ]);
  });
});

describe('what stops', () => {
  const stops: [string, Parameters<typeof line>[0]][] = [
    ['an entry without gross beside others', { tax: [{ code: 'IE-23' }, { code: 'IE-0', gross: '1.00' }] }],
    ['a gross of the other sign', { tax: [{ code: 'IE-23', gross: '-1.00' }] }],
    [
      'grosses beyond the amount',
      {
        tax: [
          { code: 'IE-23', gross: '60.00' },
          { code: 'IE-0', gross: '40.01' },
        ],
      },
    ],
    ['a given tax of the other sign', { tax: [{ code: 'IE-23', tax: '-1.00' }] }],
    ['a given tax above its gross', { tax: [{ code: 'IE-23', gross: '10.00', tax: '10.01' }] }],
    ['a given tax where there is none', { tax: [{ code: 'IE-0', tax: '0.01' }] }],
    ['a given tax on a self-assessed code', { tax: [{ code: 'IE-SA', tax: '23.00' }] }],
  ];
  it.each(stops)('%s', (_, fields) => {
    const result = run({ lines: [line(fields)] });
    expect(found(result)).toContain('stop tax-base');
    expect(result.journal).toEqual([]);
    expect(result.lines[0]!.parts[0]!.shares[0]!.cost).toBeNull();
  });

  it('not a given tax of zero', () => {
    expect(found(run({ lines: [line({ tax: [{ code: 'IE-0', tax: '0.00' }] })] }))).toEqual([]);
  });
});

describe('what is reclaimable', () => {
  it('is the product of three recoveries, rounded once', () => {
    const result = run({
      lines: [line({ category: 'phone', amount: '12.30', tax: [{ code: 'IE-23' }] })],
      entity: { recovery: '50' },
    });
    expect(tax(result)).toEqual([['2.30', '0.58']]);
  });

  it('is nothing abroad, with a note only where that takes something away', () => {
    const abroad = (category: string) => run({ lines: [line({ category, tax: [{ code: 'PT-6' }] })] });
    expect(tax(abroad('supplies'))).toEqual([['5.66', '0.00']]);
    expect(found(abroad('supplies'))).toEqual(['note tax-foreign']);
    expect(found(abroad('meal'))).toEqual([]);
  });

  it('is nothing when the line is from another country, which is always asked', () => {
    for (const category of ['supplies', 'meal'])
      expect(found(run({ lines: [line({ category, country: 'GB', tax: [{ code: 'IE-23' }] })] }))).toEqual([
        'ask tax-country',
      ]);
  });

  it('is nothing without the merchant’s tax number where one is required', () => {
    const result = run({
      lines: [
        line({
          tax: [
            { code: 'IE-23', gross: '10.00' },
            { code: 'IE-23', gross: '20.00' },
          ],
        }),
      ],
      entity: { taxNumberRequired: true },
    });
    expect(found(result)).toEqual(['note tax-number-missing']);
    expect(tax(result).map(([, back]) => back)).toEqual(['0.00', '0.00']);
  });
});

describe('self-assessed tax', () => {
  it('is debited by its recovery and credited in full', () => {
    const result = run({ lines: [line({ category: 'phone', amount: '100.00', tax: [{ code: 'IE-SA' }] })] });
    expect(result.lines[0]!.parts[0]!.tax[0]).toMatchObject({ net: '100.00', tax: '23.00', recoverable: '11.50' });
    expect(sides(result.journal)).toEqual(['6510 +111.50', '1410 +11.50', '2610 -23.00', '2110 -100.00']);
  });

  it('stops outside the registrations, though its figures stand', () => {
    const result = run({ lines: [line({ tax: [{ code: 'PT-SA' }] })] });
    expect(found(result)).toEqual(['stop tax-unregistered']);
    expect(result.journal.length).toBeGreaterThan(0);
  });
});
