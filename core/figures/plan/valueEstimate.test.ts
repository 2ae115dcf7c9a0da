import { describe, expect, it } from 'vitest';
import type { AllowanceRate } from '../../documents/allowance.schema.ts';
import type { PlannedEstimate, Trip } from '../../documents/plan.schema.ts';
import type { Limit } from '../../documents/rules.schema.ts';
import { missingOfPlan } from './missingOfPlan.ts';
import { countOf, valueEstimate } from './valueEstimate.ts';

const cap = (id: string, fields: Partial<Extract<Limit, { kind: 'cap' }>>): Limit => ({
  id,
  kind: 'cap',
  per: 'night',
  severity: 'ask',
  categories: ['lodging'],
  countries: ['PT'],
  cap: { amount: '120.00', currency: 'EUR' },
  ...fields,
});
const allowance = (fields: Partial<AllowanceRate> = {}): AllowanceRate => ({
  country: 'PT',
  currency: 'EUR',
  full: '52.00',
  ...fields,
});
const trip = (fields: Partial<Trip> = {}): Trip => ({ country: 'PT', from: '2026-03-02', to: '2026-03-06', ...fields });
const estimate = (fields: Partial<PlannedEstimate> = {}): PlannedEstimate => ({
  id: '1',
  category: 'lodging',
  per: 'night',
  ...fields,
});

describe('how often an estimate counts', () => {
  it('is the nights or days of the trip without private ones; the last day has no night', () => {
    const apart = trip({ privateDays: ['2026-03-04', '2026-03-06'] });
    expect([countOf(trip(), 'night'), countOf(trip(), 'day'), countOf(trip(), 'allowance')]).toEqual([4, 5, 5]);
    expect([countOf(apart, 'night'), countOf(apart, 'day')]).toEqual([3, 3]);
    expect(countOf(trip({ privateDays: ['2026-03-04', '2026-03-04', '2026-04-01'] }), 'day')).toBe(4);
  });
  it('is none for a night of one day, across the end of February 3, and not known without its days', () => {
    expect(countOf(trip({ to: '2026-03-02' }), 'night')).toBe(0);
    expect(countOf(trip({ from: '2026-02-27', to: '2026-03-01' }), 'day')).toBe(3);
    expect(countOf(trip({ to: null }), 'day')).toBeNull();
    expect(countOf(trip({ to: '2026-03-01' }), 'night')).toBeNull();
    expect(countOf({}, 'trip')).toBe(1);
  });
});

describe('what an estimate comes to', () => {
  const limits = [
    cap('lodging-pt', {}),
    cap('lodging-low', { cap: { amount: '99.50', currency: 'EUR' }, from: '2026-03-03' }),
    cap('lodging-jp', { countries: ['JP'], cap: { amount: '12000', currency: 'JPY' } }),
    cap('air', { per: 'trip', categories: ['air'], countries: null, cap: { amount: '400.00', currency: 'EUR' } }),
  ];
  const value = (of: Partial<PlannedEstimate>, on: Partial<Trip> = {}) =>
    valueEstimate(
      { limits, allowanceRates: [allowance(), allowance({ place: 'Faro', full: '61.00' })] },
      trip(on),
      estimate(of),
    );

  it('is count × what the limits of its country allow on its first day', () => {
    expect(value({})).toEqual({
      count: 4,
      price: { amount: '120.00', currency: 'EUR' },
      amount: '480.00',
      suggested: { amount: '120.00', currency: 'EUR', source: 'limit lodging-pt' },
    });
    expect(value({}, { from: '2026-03-03' }).amount).toBe('298.50');
    expect(value({}, { country: 'JP' }).amount).toBe('48000');
    expect(value({ category: 'air', per: 'trip' }).amount).toBe('400.00');
  });
  it('takes the allowance of the place before that of the country, and only where days are counted by it', () => {
    expect(value({ category: 'meal', per: 'allowance' }).amount).toBe('260.00');
    expect(value({ category: 'meal', per: 'allowance' }, { place: 'Faro' }).suggested).toMatchObject({
      amount: '61.00',
      source: 'daily allowance of Faro',
    });
    expect(value({ category: 'meal', per: 'day' }).price).toBeNull();
  });
  it('is less on the first and the last day of an allowance, by percent, and nothing on private ones', () => {
    const meal = estimate({ category: 'meal', per: 'allowance' });
    const rules = (fields: Partial<AllowanceRate>) => ({ limits: [], allowanceRates: [allowance(fields)] });
    // 75 % of 52.00 on 2 and 6 March, 52.00 on the three days between
    const edged = valueEstimate(rules({ edge: '75' }), trip(), meal);
    expect([edged.amount, edged.count, edged.price!.amount, edged.stay!.length]).toEqual(['234.00', 5, '52.00', 5]);
    expect(valueEstimate(rules({ edge: '75' }), trip({ privateDays: ['2026-03-06', '2026-03-04'] }), meal).amount).toBe(
      '143.00',
    );
    expect(valueEstimate(rules({ edge: '75' }), trip({ to: '2026-03-02' }), meal).amount).toBe('39.00');
    // nobody knows the hours yet
    const bands = [
      { hours: 0, percent: '0' },
      { hours: 12, percent: '100' },
    ];
    expect(valueEstimate(rules({ bands }), trip(), meal).amount).toBe('260.00');
    // what was typed is taken as it is
    expect(valueEstimate(rules({ edge: '75' }), trip(), { ...meal, count: 5 }).amount).toBe('260.00');
    expect(valueEstimate(rules({ edge: '75' }), trip({ to: null }), meal).amount).toBeNull();
  });
  it('is what was typed where something was, with what would be allowed beside it', () => {
    const typed = value({ count: 2, price: { amount: '0.500', currency: 'BHD' } });
    expect([typed.amount, typed.count, typed.suggested!.amount]).toEqual(['1.000', 2, '120.00']);
    expect(value({ count: 0 }).amount).toBe('0.00');
  });
  it('is not known without a country, without a first day, or where no limit tells', () => {
    expect(value({}, { country: null })).toMatchObject({ count: 4, price: null, amount: null });
    expect(value({}, { from: null })).toMatchObject({ count: null, price: null, amount: null });
    expect(value({ category: 'taxi', per: 'trip' }).amount).toBeNull();
  });
});

describe('what a plan still wants', () => {
  const fields = (on: Trip, ...of: PlannedEstimate[]) =>
    missingOfPlan(
      on,
      of.map((e) => ({ estimate: e, value: valueEstimate({}, on, e) })),
    ).map((m) => `${m.estimate ?? ''}${m.field}`);
  it('is said for each field, of the plan and of its estimates', () => {
    expect(fields({})).toEqual(['country', 'from', 'to', 'estimates']);
    expect(fields({ country: 'PT', from: '2026-03-02' }, estimate())).toEqual(['to', '1count', '1price']);
    expect(fields(trip(), estimate({ per: 'trip', price: { amount: '5.00', currency: 'EUR' } }))).toEqual([]);
    expect(
      fields(trip({ privateDays: ['2026-03-07'] }), estimate({ price: { amount: '5.00', currency: 'EUR' } })),
    ).toEqual(['privateDays']);
  });
});
