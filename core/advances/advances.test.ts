import { describe, expect, it } from 'vitest';
import { rateTable } from '../figures/currency/rateTable.ts';
import { judgeRequest } from './judgeRequest.ts';
import type { AdvanceBook, WantedAdvance } from './advances.types.ts';
import { proposedDue, reminderDay } from './reminders.ts';
import { ageOf, standingOf } from './standing.ts';

const wanted: WantedAdvance = {
  ...{ kind: 'trip', entity: 'IE', currency: 'EUR', amount: 50_000n, on: '2026-11-10' },
  person: { kind: 'employee' },
};
const rates = rateTable({
  rates: [{ from: 'EUR', to: 'KES', date: '2026-11-09', rate: '140', source: 'Made up' }],
  pivot: 'EUR',
});
const book = (more: Partial<AdvanceBook>): AdvanceBook => ({
  rules: [{ id: 'most', is: { rule: 'most open', amount: '1000.00', currency: 'EUR' } }],
  others: [],
  rates,
  ...more,
});
const open = (more: object = {}) => ({ id: 'A-1', currency: 'EUR', open: 50_000n, dueBy: null, ...more });
const says = (more: Partial<AdvanceBook>, ask: Partial<WantedAdvance> = {}) =>
  judgeRequest({ ...wanted, ...ask }, book(more)).map((p) => p.says);

describe('what stands against an advance', () => {
  it('is nothing up to the limit, exactly', () => {
    expect(says({ others: [open()] })).toEqual([]);
    expect(says({ others: [open({ open: 50_001n })] })).toEqual([
      'With this, 1000.01 EUR would be open of at most 1000.00.',
    ]);
  });
  it('counts other currencies by the published rate of the day, and what cannot be converted as too much', () => {
    // 70,000.00 KES at 140 are 500.00 EUR
    expect(says({ others: [open({ currency: 'KES', open: 7_000_000n })] })).toEqual([]);
    expect(says({ others: [open({ currency: 'KES', open: 7_000_069n })] })).toEqual([]);
    expect(says({ others: [open({ currency: 'KES', open: 7_000_070n })] })).toHaveLength(1);
    expect(says({ others: [open({ currency: 'USD' })] })).toEqual([
      'There is no rate to compare what would be open with the 1000.00 EUR allowed.',
    ]);
  });
  it('is one that is overdue, from the day after', () => {
    const rules = [{ id: 'none', is: { rule: 'none while overdue' as const } }];
    const due = (dueBy: string, amount = 1n) => says({ rules, others: [open({ dueBy, open: amount })] });
    expect([due('2026-11-10'), due('2026-11-09', 0n)]).toEqual([[], []]);
    expect(due('2026-11-09')).toEqual(['Advance A-1 was to be accounted for by 2026-11-09.']);
  });
  it('is of the entities a rule names, and of contractors always', () => {
    const rules = [
      { id: 'most', entities: ['NO'], is: { rule: 'most open' as const, amount: '1.00', currency: 'EUR' } },
    ];
    expect([says({ rules }), says({ rules }, { entity: 'NO' }).length]).toEqual([[], 1]);
    const [stop] = judgeRequest({ ...wanted, person: { kind: 'contractor' } }, book({ rules: [] }));
    expect(stop).toMatchObject({ severity: 'stop', rule: null });
  });
});

describe('where an advance stands', () => {
  it('is what moved its account, in both currencies; a reversal counts as what it reverses', () => {
    const standing = standingOf([
      { by: 'advance payout', amount: 500_000n, ledger: 120_137n },
      { by: 'claim', amount: -200_125n, ledger: -48_085n },
      { by: 'claim', amount: 200_125n, ledger: 48_085n },
      { by: 'advance returned', amount: -500_000n, ledger: -120_137n },
    ]);
    expect(standing).toEqual({
      paidOut: { amount: 500_000n, ledger: 120_137n },
      accountedFor: { amount: 0n, ledger: 0n },
      givenBack: { amount: 500_000n, ledger: 120_137n },
      open: { amount: 0n, ledger: 0n },
    });
  });
  it('has an age in spans of days', () => {
    const ages = ['2026-03-31', '2026-04-01', '2026-04-30', '2026-05-01', '2026-05-30', '2026-05-31'];
    expect(ages.map((on) => ageOf('2026-03-01', on).span)).toEqual([
      '0–30',
      '31–60',
      '31–60',
      '61–90',
      '61–90',
      'over 90',
    ]);
    expect(ageOf('2026-03-01', '2026-03-31').days).toBe(30);
  });
});

describe('reminders', () => {
  const days = { before: 7, every: 7 };
  const on = (day: string, which = days) => reminderDay('2026-11-20', day, which);
  it('stand from some days before, on the day, and every so many days after it', () => {
    expect([on('2026-11-12'), on('2026-11-13'), on('2026-11-19')]).toEqual([null, '2026-11-13', '2026-11-13']);
    expect([on('2026-11-20'), on('2026-11-26'), on('2026-11-27'), on('2026-12-05')]).toEqual([
      '2026-11-20',
      '2026-11-20',
      '2026-11-27',
      '2026-12-04',
    ]);
  });
  it('are left out where the days are none', () => {
    expect(on('2026-11-19', { before: 0, every: 7 })).toBeNull();
    expect(on('2026-12-05', { before: 0, every: 0 })).toBe('2026-11-20');
  });
  it('begin with a day that is proposed after the trip, or after today', () => {
    expect(proposedDue('2026-11-20', '2026-11-10', 14)).toBe('2026-12-04');
    expect(proposedDue('2026-11-01', '2026-11-10', 14)).toBe('2026-11-24');
    expect(proposedDue(null, '2026-11-10', 14)).toBe('2026-11-24');
  });
});
