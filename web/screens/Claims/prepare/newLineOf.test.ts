import { expect, it } from 'vitest';
import { line } from '../../../../test/fixtures/caseBuilder.ts';
import { isCopyWhole, newLineOf } from './newLineOf.ts';

it('a line is written again with its items, and is whole only when nothing of it came from elsewhere', () => {
  const items = [{ id: '1a', category: 'meal', amount: '100.00' }];
  expect(newLineOf(line({ category: null, items }))).toMatchObject({ category: null, items, paidBy: 'own' });
  expect(newLineOf(line({ paidBy: 'central' })).paidBy).toBe('central');
  const settled = { amount: '1.00', currency: 'EUR' };
  const lost = [
    { nights: 2 },
    { attendees: { count: 3 } },
    { fields: { route: 'A' } },
    { rate: { kind: 'own', value: '1.2' } as const },
  ];
  expect([{}, ...lost, { rate: { kind: 'card', settled } as const }].map((f) => isCopyWhole(line(f)))).toEqual([
    true,
    false,
    false,
    false,
    false,
    false,
  ]);
});
