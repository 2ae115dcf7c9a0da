import type { Verdict } from '../../figures/policy/policy.types.ts';
import { fromComparisons } from './_lib/states.ts';
import type { Comparison, Tie } from './tie.types.ts';

/**
 * What the rules of one kind came to for a line, from the verdicts about it: the limits of the policy, the rules of the
 * chart, the budgets left. Example: a night of 171.00 against a cap of 140.00 → off by 31.00.
 */
export function tieRules(line: string, kind: Verdict['kind'], verdicts: readonly Verdict[]): Tie {
  const own = verdicts.filter((v) => v.kind === kind);
  const comparisons = own.map(compare);
  const off = comparisons.find((c) => c.state === 'off');
  const steps = own.filter((v) => v.owner).map((v) => ({ label: v.subject, value: `ask ${v.owner}`, source: null }));
  return {
    ...fromComparisons(line, kind, comparisons),
    difference: off ? (off.difference ?? 'see rule') : null,
    steps: unique(steps),
  };
}

/** A note informs and leaves the comparison tied; stop and ask are off. */
function compare(verdict: Verdict): Comparison {
  const { subject, actual, allowed, unit, difference, kept, kind, severity, rule, says } = verdict;
  const withUnit = (figure: string | null) => (figure && unit ? `${figure} ${unit}` : figure);
  return {
    fact: kept && kind !== 'limit' ? subject : [rule, subject].filter(Boolean).join(': '),
    claimed: actual === null ? (kept ? 'kept' : says) : withUnit(actual),
    evidence: withUnit(allowed),
    difference: difference && !kept ? `+${difference}` : null,
    tolerance: null,
    state: kept || severity === 'note' ? 'tied' : 'off',
  };
}

function unique<T>(rows: T[]): T[] {
  const seen = new Set<string>();
  return rows.filter((row) => !seen.has(JSON.stringify(row)) && seen.add(JSON.stringify(row)));
}
