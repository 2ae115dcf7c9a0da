import { expect, it } from 'vitest';
import { PLACES } from './places.ts';
import { titleOf } from './titleOf.ts';

it('every page has a title of its own: the record, then the place', () => {
  expect(titleOf('/desk/C-1009')).toBe('C-1009 · Desk · Ebbet');
  expect(titleOf('/advances/register/')).toBe('Register of advances · Advances · Ebbet');
  expect(titleOf('/gather/cards/4410/2026-11')).toBe('2026-11 · Gather · Ebbet');
  expect(titleOf('/')).toBe('Ebbet');
  const paths = [...PLACES.map((p) => p.path), '/messages', '/account', '/gather/receipts', '/gather/pairs'];
  expect(new Set(paths.map(titleOf)).size).toBe(paths.length);
});
