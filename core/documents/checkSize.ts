import type { Case } from './case.schema.ts';
import type { Report } from './problem.ts';

/** The largest claim that is accepted, so that it is assessed in well under a second. */
const MOST = 32_000;

/**
 * How much there is to compute of a claim: its parts (lines without items, and items), their shares (one where nothing is
 * split) and their taxes, counted together. Example: two lines, one of them with a tax → 5.
 */
export function sizeOf({ claim }: Pick<Case, 'claim'>): number {
  const parts = claim.lines.flatMap((line) => (line.items?.length ? line.items : [line]));
  return parts.reduce((a, p) => a + 1 + (p.split?.shares.length ?? 1) + (p.tax?.length ?? 0), 0);
}

/** Reports a claim that holds more than is computed at once. 5,000 lines as people write them are the most there can be. */
export function checkSize(document: Case, report: Report): void {
  const size = sizeOf(document);
  if (size > MOST)
    report(['claim', 'lines'], `hold ${size} parts, shares and taxes in all, and at most ${MOST} are taken`);
}
