import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal, valid, type CaseParts } from '../../../test/fixtures/caseBuilder.ts';
import { assess } from '../../assess/assess.ts';
import type { Line } from '../../documents/case.schema.ts';
import { explainLine } from '../../explain/explainLine.ts';

const book: CaseParts['book'] = {
  mileageRates: [
    {
      vehicle: 'car',
      currency: 'EUR',
      unit: 'km',
      tiers: [
        { upTo: '1500', rate: '0.4095' },
        { upTo: null, rate: '0.2' },
      ],
    },
  ],
  allowanceRates: [
    { country: 'PT', currency: 'EUR', full: '40.00', edge: '75', meals: { lunch: { percent: '40' } } },
    { country: 'GB', currency: 'GBP', full: '35.00' },
  ],
};
const about = (fields: Partial<Line>) =>
  assess(valid(makeCase({ lines: [line(fields)], book }))).findings.map((f) => [f.code, f.severity, f.difference]);

describe('a line that pays for a journey', () => {
  const journey = { vehicle: 'car', distance: '100', unit: 'km' as const, before: '1450' };

  it('is its mileage, tier by tier', () => {
    // 50 × 0.4095 + 50 × 0.2 = 30.475
    expect(about({ amount: '30.48', journey })).toEqual([]);
    expect(about({ amount: '40.95', journey })).toEqual([['computed-off', 'stop', '10.47']]);
  });
  it('stops without a rate in its currency', () => {
    expect(about({ amount: '30.48', journey: { ...journey, vehicle: 'boat' } })).toEqual([
      ['computed-missing', 'stop', null],
    ]);
    const usd = assess(valid(makeCase({ lines: [line({ currency: 'USD', journey })], book })));
    expect(usd.findings.map((f) => f.code)).toContain('computed-missing');
  });
  it('is explained with its tiers', () => {
    const document = valid(makeCase({ lines: [line({ amount: '30.48', journey })], book }));
    expect(explainLine(document, '1')![0]).toMatchObject({
      figure: 'amount',
      rule: '27',
      inputs: { distance: '100 km', tiers: '50 at 0.4095, 50 at 0.2', 'before in the tax year': '1450 km' },
      result: '30.48',
    });
  });
});

describe('a line that pays for days away', () => {
  const stay = [
    { date: '2026-03-01', country: 'PT', edge: true },
    { date: '2026-03-02', country: 'PT', provided: ['lunch' as const] },
    { date: '2026-03-03', country: 'PT', private: true },
  ];

  it('is the sum of its days, each rounded, nothing for private ones', () => {
    expect(about({ amount: '54.00', stay })).toEqual([]);
    expect(about({ amount: '110.00', stay })).toEqual([['computed-off', 'stop', '56.00']]);
  });
  it('cannot hold days in two currencies', () => {
    const abroad = [...stay, { date: '2026-03-04', country: 'GB' }];
    expect(about({ amount: '54.00', stay: abroad })).toEqual([['computed-missing', 'stop', null]]);
  });
  it('is explained day by day', () => {
    const document = valid(makeCase({ lines: [line({ amount: '54.00', stay })], book }));
    const days = explainLine(document, '1')!.filter((s) => s.rule === '28');
    expect(days.map((d) => [d.figure, d.result])).toEqual([
      ['allowance 2026-03-01', '30.00'],
      ['allowance 2026-03-02', '24.00'],
      ['allowance 2026-03-03', '0.00'],
    ]);
    expect(days[1]!.inputs).toMatchObject({ provided: 'lunch' });
  });
});

it('an amount is computed from one thing, and rates have the decimals of their currency', () => {
  const quantity = { count: '1', unitPrice: '100' };
  const journey = { vehicle: 'car', distance: '1', unit: 'km' as const };
  expect(refusal(makeCase({ lines: [line({ quantity, journey })], book }))).toContain(
    'journey: an amount is computed from one thing, and this line has a quantity',
  );
  const yen = [{ country: 'JP', currency: 'JPY', full: '10.50' }];
  expect(refusal(makeCase({ lines: [], book: { allowanceRates: yen } }))).toContain('allowanceRates.0.full: "10.50"');
  const stay = [{ date: '2026-03-02', country: 'PT', provided: ['lunch' as const, 'lunch' as const] }];
  expect(refusal(makeCase({ lines: [line({ stay })], book }))).toContain('names a meal twice');
});
