import type { Line } from '../../documents/case.schema.ts';
import { fromComparisons } from './_lib/states.ts';
import type { Comparison, DuplicateEvidence, Tie } from './tie.types.ts';

/**
 * Earlier claims of anybody with the line: tied when nothing looks like the same spending, off for each that does.
 * Open where there was too much to look at. Example: the same 20.00 at the same merchant two days before → off.
 */
export function tieDuplicate(line: Line, duplicates: readonly DuplicateEvidence[], cut = false): Tie {
  const comparisons: Comparison[] = duplicates.map((d) => ({
    fact: `claim ${d.claim}, line ${d.line}, ${d.claimant}`,
    claimed: `${line.amount} ${line.currency}, ${line.date}`,
    evidence: `${d.amount} ${d.currency}, ${d.date}`,
    difference: d.reason,
    tolerance: null,
    state: 'off' as const,
  }));
  if (cut)
    comparisons.push({
      fact: 'more lines of this amount and these days',
      claimed: `${line.amount} ${line.currency}, ${line.date}`,
      evidence: 'not all were looked at',
      difference: null,
      tolerance: null,
      state: 'open',
    });
  if (comparisons.length === 0)
    return { line: line.id, kind: 'duplicate', state: 'tied', difference: null, comparisons: [], steps: [] };
  return {
    ...fromComparisons(line.id, 'duplicate', comparisons),
    difference: `${duplicates.length}${cut ? ' or more' : ''} alike`,
    steps: [],
  };
}
