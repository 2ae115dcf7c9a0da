import type { ShareRow } from '../documents/assessment.schema.ts';
import type { Line, Split } from '../documents/case.schema.ts';
import type { OpenCase } from '../figures/figures.types.ts';
import { withRest } from '../figures/split/withRest.ts';
import { assessLine } from './assessLine.ts';
import { writeLine } from './writeAssessment.ts';

/** A line or item whose shares do not come to all of it: its shares, and as the last one what is left to divide. */
export interface Undivided {
  line: string;
  item: string | null;
  shares: ShareRow[];
}

/**
 * The parts of a line that are not divided to the last unit, computed as if one more share took the rest. Example: 100.00
 * of which 60.00 is on a share → that share, and 40.00 with its tax and its value in the ledger.
 */
export function undividedOf(open: OpenCase, line: Line): Undivided[] {
  const parts: readonly { split?: Split | null; item: string | null }[] = line.items?.length
    ? line.items.map(({ id, split }) => ({ split, item: id }))
    : [{ split: line.split, item: null }];
  return parts.flatMap(({ split, item }) => {
    const whole = split ? withRest(split) : null;
    if (!whole) return [];
    const shares = sharesWith(open, line, item, whole);
    const left = shares.at(-1)?.gross;
    return left && /[1-9]/.test(left) ? [{ line: line.id, item, shares }] : [];
  });
}

function sharesWith(open: OpenCase, line: Line, item: string | null, split: Split): ShareRow[] {
  const items = line.items?.map((i) => (i.id === item ? { ...i, split } : i)) ?? null;
  const figures = assessLine(open, item === null ? { ...line, split } : { ...line, items });
  return writeLine(open, figures).parts.find((p) => p.item === item)?.shares ?? [];
}
