import { expect, it } from 'vitest';
import { sayWait } from './sayWait.ts';

it('says in whole days how long something waits', () => {
  const now = Date.parse('2026-03-03T12:00:00Z');
  const says = (since: string) => sayWait(since, now);
  expect(says('2026-03-02T12:00:01Z')).toBe('since today');
  expect(says('2026-03-02T11:00:00Z')).toBe('for one day');
  expect(says('2026-02-19T12:00:00Z')).toBe('for 12 days');
  expect(says('2026-03-04T12:00:00Z')).toBe('since today');
});
