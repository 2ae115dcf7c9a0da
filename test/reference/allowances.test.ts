import { describe, expect, it } from 'vitest';
import type { AllowanceRate, MileageRate, StayDay, Tier } from '../../core/documents/allowance.schema.ts';
import { dailyAllowance } from '../../core/figures/allowance/dailyAllowance.ts';
import { mileage } from '../../core/figures/allowance/mileage.ts';

const drive = (distance: string, tiers: Tier[], currency: string, date = '2025-05-01', from?: string) => {
  const rate: MileageRate = { vehicle: 'v', currency, unit: 'mile', tiers, from: from ?? null };
  return mileage({ date, vehicle: 'v', distance, unit: 'mile' }, [rate])!.amount;
};
const flat = (rate: string): Tier[] => [{ upTo: null, rate }];

/** Source: approved mileage allowance payments, ITEPA 2003 s.230 (United Kingdom). From memory. */
describe('UK approved mileage payments', () => {
  it('12,000 car miles: 10,000 at 45 p and 2,000 at 25 p', () => {
    expect(
      drive(
        '12000',
        [
          { upTo: '10000', rate: '0.45' },
          { upTo: null, rate: '0.25' },
        ],
        'GBP',
      ),
    ).toBe('5000.00');
  });
  it.each([
    ['motorcycle', '0.24', '24.00'],
    ['cycle', '0.20', '20.00'],
  ])('100 miles by %s', (_, rate, amount) => {
    expect(drive('100', flat(rate), 'GBP')).toBe(amount);
  });
  it('5 p a mile for a passenger', () => {
    const rate: MileageRate = { vehicle: 'v', currency: 'GBP', unit: 'mile', tiers: flat('0.45'), passenger: '0.05' };
    expect(
      mileage({ date: '2025-05-01', vehicle: 'v', distance: '100', unit: 'mile', passengers: 1 }, [rate])!.amount,
    ).toBe('50.00');
  });
});

/** Source: IRS standard mileage rates, business use. From memory; 2022 changed in July. */
describe('IRS standard mileage', () => {
  it.each([
    ['2022', '0.585', '58.50'],
    ['2023', '0.655', '65.50'],
    ['2024', '0.67', '67.00'],
    ['2025', '0.70', '70.00'],
  ])('100 miles in %s', (_, rate, amount) => {
    expect(drive('100', flat(rate), 'USD')).toBe(amount);
  });
  it('2022 takes the rate of the journey’s date', () => {
    const rates: MileageRate[] = [
      { vehicle: 'v', currency: 'USD', unit: 'mile', tiers: flat('0.585'), from: '2022-01-01', to: '2022-06-30' },
      { vehicle: 'v', currency: 'USD', unit: 'mile', tiers: flat('0.625'), from: '2022-07-01', to: '2022-12-31' },
    ];
    const on = (date: string) => mileage({ date, vehicle: 'v', distance: '100', unit: 'mile' }, rates)!.amount;
    expect([on('2022-06-30'), on('2022-07-01')]).toEqual(['58.50', '62.50']);
  });
});

/** Source: United States FTR 301-11.101 and the GSA's FY2025 meal breakdown; first and last day 75 %. From memory. */
describe('US per diem', () => {
  const table: [string, string, string, string, string, string][] = [
    ['68', '16', '19', '28', '5', '51.00'],
    ['74', '18', '20', '31', '5', '55.50'],
    ['80', '20', '22', '33', '5', '60.00'],
    ['86', '22', '23', '36', '5', '64.50'],
    ['92', '23', '26', '38', '5', '69.00'],
  ];
  const rateOf = ([full, breakfast, lunch, dinner]: readonly string[]): AllowanceRate => ({
    country: 'US',
    currency: 'USD',
    full: `${full}.00`,
    edge: '75',
    meals: {
      breakfast: { amount: `${breakfast}.00` },
      lunch: { amount: `${lunch}.00` },
      dinner: { amount: `${dinner}.00` },
    },
  });
  const days = (...list: Partial<StayDay>[]) =>
    list.map((d, i) => ({ date: `2025-05-0${i + 1}`, country: 'US', ...d }));
  it.each(table)('%s a day: %s, %s, %s and %s; first and last day %s', (...row) => {
    const [full, breakfast, lunch, dinner, incidentals, edge] = row;
    expect(Number(breakfast) + Number(lunch) + Number(dinner) + Number(incidentals)).toBe(Number(full));
    const result = dailyAllowance(days({ edge: true }, {}, { provided: ['breakfast', 'lunch', 'dinner'] }), [
      rateOf(row),
    ]);
    expect(result.days.map((d) => d.amount)).toEqual([edge, `${full}.00`, `${incidentals}.00`]);
  });
  it('three days at 68 are 170.00; with lunch provided on the middle day 151.00 (own numbers)', () => {
    const total = (middle: Partial<StayDay>) =>
      dailyAllowance(days({ edge: true }, middle, { edge: true }), [rateOf(table[0]!)]).days.reduce(
        (a, d) => a + Number(d.amount) * 100,
        0,
      );
    expect([total({}), total({ provided: ['lunch'] })]).toEqual([17000, 15100]);
  });
});

/** Source: German income tax act §9(4a): 28 for a full day, 14 for the first and last; meals take 20, 40 and 40 % of 28. From memory. */
describe('German meal allowance', () => {
  const rate: AllowanceRate = {
    country: 'DE',
    currency: 'EUR',
    full: '28.00',
    edge: '50',
    meals: { breakfast: { percent: '20' }, lunch: { percent: '40' }, dinner: { percent: '40' } },
  };
  const day = (fields: Partial<StayDay>) =>
    dailyAllowance([{ date: '2025-05-01', country: 'DE', ...fields }], [rate]).days[0]!.amount;
  it.each([
    [{}, '28.00'],
    [{ edge: true }, '14.00'],
    [{ provided: ['breakfast'] }, '22.40'],
    [{ provided: ['lunch'] }, '16.80'],
    [{ edge: true, provided: ['dinner'] }, '2.80'],
    [{ edge: true, provided: ['lunch', 'dinner'] }, '0.00'],
    [{ provided: ['breakfast', 'lunch', 'dinner'] }, '0.00'],
  ] as [Partial<StayDay>, string][])('%j', (fields, amount) => {
    expect(day(fields)).toBe(amount);
  });
});
