import type { OwnCodes } from '../api/codes.ts';
import type { Choosable } from './CodeChoice.tsx';

/** Codes of a dimension (null: categories) with those kept first, then those used last, before the others. */
export function ownOrder(
  codes: readonly Choosable[],
  own: OwnCodes | undefined,
  dimension: string | null,
): readonly Choosable[] {
  if (!own) return codes;
  const kept = own.favourites.filter((f) => f.dimension === dimension).map((f) => f.code);
  const recent = own.recent.find((r) => r.dimension === dimension)?.codes ?? [];
  const marked = (list: readonly string[], first: NonNullable<Choosable['first']>) =>
    list.flatMap((code) => codes.filter((c) => c.code === code).map((c) => ({ ...c, first })));
  const before = [
    ...marked(kept, 'kept first'),
    ...marked(
      recent.filter((code) => !kept.includes(code)),
      'recent',
    ),
  ];
  const there = new Set(before.map((c) => c.code));
  return [...before, ...codes.filter((c) => !there.has(c.code))];
}
