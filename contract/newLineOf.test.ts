import { expect, it } from 'vitest';
import { line } from '../test/fixtures/caseBuilder.ts';
import { isCopyWhole, movedBy, newLineOf } from './newLineOf.ts';

it('a line is written again with its items, and is whole only when nothing of it came from elsewhere', () => {
  const items = [{ id: '1a', category: 'meal', amount: '100.00' }];
  expect(newLineOf(line({ category: null, items }))).toMatchObject({ category: null, items, paidBy: 'own' });
  expect(newLineOf(line({ paidBy: 'central' })).paidBy).toBe('central');
  const settled = { amount: '1.00', currency: 'EUR' };
  const elsewhere = [{ kind: 'own', value: '1.2' } as const, { kind: 'card', settled } as const];
  expect(elsewhere.map((rate) => isCopyWhole(line({ rate })))).toEqual([false, false]);
  expect(isCopyWhole(line())).toBe(true);
});

it('what its category asks is written again; what was driven before is found again by itself', () => {
  const said = {
    nights: 2,
    attendees: { count: 3 },
    fields: { route: 'A to B' },
    journey: { vehicle: 'car', distance: '8', unit: 'km' as const, before: '900' },
    estimate: '4',
    rebill: { to: 'Reed Trust', markup: '5' },
  };
  const { before: _, ...journey } = said.journey;
  expect(newLineOf(line(said))).toMatchObject({ ...said, journey });
  expect(newLineOf(line(said)).journey).toEqual(journey);
  expect(newLineOf(line()).journey).toBeNull();
});

it('a line moves with the days of its stay', () => {
  const stay = [{ date: '2026-02-27', country: 'PT' }];
  const moved = movedBy(newLineOf(line({ date: '2026-02-27', stay })), 3);
  expect([moved.date, moved.stay?.[0]?.date]).toEqual(['2026-03-02', '2026-03-02']);
  expect(movedBy(newLineOf(line({ date: '2026-03-02' })), -3)).toMatchObject({ date: '2026-02-27', stay: null });
});
