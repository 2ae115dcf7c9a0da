import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { ALL_MUTATIONS, placesOf } from './all.ts';

it('every mutation finds its place once, so that moving code does not silence it', () => {
  const lost = ALL_MUTATIONS.filter((m) => placesOf(m, readFileSync(m.file, 'utf8')) !== 1);
  expect(lost.map((m) => `${m.rule}: ${m.file}`)).toEqual([]);
});
