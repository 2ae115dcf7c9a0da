import type { OwnClaimRow, OwnFilter } from './claims.ts';

type Filtered = Pick<OwnClaimRow, 'number' | 'purpose' | 'submittedOn'>;

/** Whether one of a person's own claims is among those looked for; the list and its file ask the same. */
export function fitsOwn({ number, purpose, submittedOn }: Filtered, { q, year }: OwnFilter): boolean {
  const words = q.toLowerCase().split(/\s+/);
  const text = `${number} ${purpose}`.toLowerCase();
  const ofYear = year === '' || submittedOn === null || submittedOn.startsWith(`${year}-`);
  return ofYear && words.every((word) => text.includes(word));
}
