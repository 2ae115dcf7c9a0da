import { describe, expect, it } from 'vitest';
import type { AllowanceRate, MileageRate } from '../../documents/allowance.schema.ts';
import { dailyAllowance } from './dailyAllowance.ts';
import { mileage, sumDistances } from './mileage.ts';

const car: MileageRate = {
  vehicle: 'car',
  currency: 'GBP',
  unit: 'mile',
  tiers: [
    { upTo: '10000', rate: '0.45' },
    { upTo: null, rate: '0.25' },
  ],
  passenger: '0.05',
};
const drive = (fields: object, rates = [car]) =>
  mileage({ date: '2026-05-01', vehicle: 'car', distance: '100', unit: 'mile', ...fields }, rates);

describe('mileage', () => {
  it('cuts a journey that crosses a tier', () => {
    expect(drive({ distance: '100', before: '9950' })).toMatchObject({
      amount: '35.00',
      tiers: [
        { distance: '50', rate: '0.45' },
        { distance: '50', rate: '0.25' },
      ],
    });
    expect(drive({ before: '10000' })).toMatchObject({ amount: '25.00', tiers: [{ distance: '100', rate: '0.25' }] });
  });
  it('converts miles exactly and rounds once', () => {
    const km: MileageRate = { vehicle: 'car', currency: 'EUR', unit: 'km', tiers: [{ upTo: null, rate: '0.30' }] };
    expect(drive({ distance: '100' }, [km])).toMatchObject({ amount: '48.28', tiers: [{ distance: '160.9344' }] });
    expect(drive({ distance: '160.9344', unit: 'km' })!.tiers[0]!.distance).toBe('100');
  });
  it('adds passengers, shows fuel and what payroll has to tax apart', () => {
    const generous = { ...car, tiers: [{ upTo: null, rate: '0.60' }], taxFree: car.tiers, fuel: '0.14' };
    expect(drive({ passengers: 2 })).toMatchObject({ amount: '55.00', taxable: '0.00', fuelPart: null });
    expect(drive({ passengers: 1 }, [generous])).toMatchObject({
      amount: '65.00',
      taxable: '15.00',
      fuelPart: '14.00',
    });
  });
  it('is nothing for no distance, and unknown without a rate of the date', () => {
    expect(drive({ distance: '0' })!.amount).toBe('0.00');
    expect(drive({ vehicle: 'boat' })).toBeNull();
    expect(drive({}, [{ ...car, to: '2026-04-30' }])).toBeNull();
  });
});

const rate: AllowanceRate = {
  country: 'US',
  currency: 'USD',
  full: '68.00',
  edge: '75',
  meals: { breakfast: { amount: '16.00' }, lunch: { amount: '19.00' }, dinner: { amount: '28.00' } },
};
const day = (fields: object, rates = [rate]) =>
  dailyAllowance([{ date: '2026-05-01', country: 'US', ...fields }], rates).days[0]!;

describe('daily allowance', () => {
  it('reduces the edges, takes meals off afterwards, never below zero', () => {
    expect(day({}).amount).toBe('68.00');
    expect(day({ edge: true, provided: ['lunch'] }).amount).toBe('32.00');
    expect(day({ edge: true, provided: ['breakfast', 'lunch', 'dinner'] }).amount).toBe('0.00');
  });
  it('pays nothing on private days', () => {
    expect(day({ private: true })).toMatchObject({ amount: '0.00', taxable: '0.00' });
  });
  it('goes by hours away where the table does', () => {
    const bands = [
      { hours: 8, percent: '50' },
      { hours: 24, percent: '100' },
    ];
    const amount = (hours: number) => day({ edge: true, hours }, [{ ...rate, edge: null, bands }]).amount;
    expect([amount(7.9), amount(8), amount(23), amount(24)]).toEqual(['0.00', '34.00', '34.00', '68.00']);
  });
  it('prefers the place to its country, and has no figure without a rate', () => {
    const city = { ...rate, place: 'Baltimore', full: '80.00' };
    expect(day({ place: 'Baltimore' }, [rate, city]).amount).toBe('80.00');
    expect(day({ place: 'Annapolis' }, [rate, city]).amount).toBe('68.00');
    expect(day({ country: 'CA' })).toEqual({ date: '2026-05-01', currency: null, amount: null, taxable: null });
  });
  it('shows what is above the tax-free amount', () => {
    expect(day({ edge: true }, [{ ...rate, taxFree: '40.00' }])).toMatchObject({ amount: '51.00', taxable: '21.00' });
  });
});

it('distances of a year add up in one unit: a mile is 1.609344 km (international yard and pound agreement, 1959)', () => {
  const driven = [
    { distance: '100', unit: 'km' as const },
    { distance: '10', unit: 'mile' as const },
  ];
  expect(sumDistances(driven, 'km')).toBe('116.09344');
  expect(sumDistances(driven, 'mile')).toBe('72.137119223733');
  expect(sumDistances([], 'km')).toBe('0');
});
