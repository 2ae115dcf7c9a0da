import type { Assessment, ShareRow } from '../documents/assessment.schema.ts';

/**
 * For each journal row the index of the share it came from among the shares of its line or item, or null for a row that
 * is no share's cost. Cost rows stand first, in the order of lines, items and shares; shares without ledger cost have
 * none. Example: two shares and the payable → [0, 1, null].
 */
export function traceRows({ lines, journal }: Pick<Assessment, 'lines' | 'journal'>): (number | null)[] {
  const costs = lines.flatMap((line) =>
    line.parts.flatMap((part) =>
      part.shares.flatMap((share, index) => (hasCost(share) ? [{ line: line.id, item: part.item, index }] : [])),
    ),
  );
  return journal.map((row, i) => {
    const cost = costs[i];
    return cost && cost.line === row.line && cost.item === row.item && row.taxCode === null ? cost.index : null;
  });
}

const hasCost = (share: ShareRow): boolean => share.ledgerCost !== null && /[1-9]/.test(share.ledgerCost);
