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
  const off = ['off', 'open'].map((state) => comparisons.findIndex((c) => c.state === state)).find((i) => i >= 0) ?? -1;
  const steps = own.filter((v) => v.owner).map((v) => ({ label: v.subject, value: `ask ${v.owner}`, source: null }));
  return {
    ...fromComparisons(line, kind, comparisons),
    difference: off < 0 ? null : (comparisons[off]!.difference ?? own[off]!.short),
    steps: unique(steps),
  };
}

/** A note informs and leaves the comparison tied; stop and ask are off; what cannot be computed is open. */
function compare(verdict: Verdict): Comparison {
  const { actual, allowed, unit, kept, unknown, severity, says, wants } = verdict;
  const withUnit = (figure: string | null) => (figure && unit ? `${figure} ${unit}` : figure);
  return {
    fact: wants,
    claimed: unknown ? 'not known yet' : actual === null ? (kept ? 'kept' : says) : withUnit(actual),
    evidence: withUnit(allowed),
    difference: kept ? null : moreOf(verdict),
    tolerance: null,
    state: unknown ? 'open' : kept || severity === 'note' ? 'tied' : 'off',
  };
}

/** How much it is too much: amounts without their currency, which stands beside them, anything else with its unit. */
function moreOf({ actual, allowed, unit, difference }: Verdict): string | null {
  if (difference) return `+${difference}`;
  const counted = unit !== null && !/^[A-Z]{3}$/.test(unit) && actual !== null && allowed !== null;
  return counted ? `+${Number(actual) - Number(allowed)} ${unit}` : null;
}

function unique<T>(rows: T[]): T[] {
  const seen = new Set<string>();
  return rows.filter((row) => !seen.has(JSON.stringify(row)) && seen.add(JSON.stringify(row)));
}
