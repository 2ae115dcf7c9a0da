import { sha256 } from '../../../platform/history/sha256.ts';

/** How many of a number of claims get a full look: a share in percent, rounded up, and at least one. 45 claims, 10 % → 5. */
export const drawnCount = (claims: number, share: number): number =>
  claims === 0 ? 0 : Math.min(claims, Math.max(1, Math.ceil((claims * share) / 100)));

/**
 * Those of some claims that are drawn by a seed: the ones whose SHA-256 of the seed, a space and the number comes first. Whoever
 * knows the seed can draw again and gets the same, whatever the order the claims are named in.
 */
export function drawOf(numbers: readonly string[], seed: string, count: number): string[] {
  const lots = numbers.map((number) => ({ number, lot: sha256(`${seed} ${number}`) }));
  return lots
    .sort((a, b) => (a.lot < b.lot ? -1 : 1))
    .slice(0, count)
    .map(({ number }) => number);
}
