import type { OpenCase } from '../../figures/figures.types.ts';
import { sayTolerance, type EstimateFigures } from '../../figures/plan/judgeEstimates.ts';
import type { Verdict } from '../../figures/policy/policy.types.ts';
import type { Line } from '../../documents/case.schema.ts';
import { fromMinor } from '../../numbers/amount.ts';
import { fromComparisons } from './_lib/states.ts';
import { tieRules } from './tieRules.ts';
import type { Comparison, Step, Tie } from './tie.types.ts';

/**
 * Estimate with actual: all lines of an estimate together, compared at the last of them; and what the policy wants planned.
 * Example: two lines of 110.00 on an estimate of 200.00 without a tolerance → off by +20.00 at the second.
 */
export function tiePlan(
  open: OpenCase,
  line: Line,
  estimates: readonly EstimateFigures[],
  verdicts: readonly Verdict[],
): Tie {
  const wanted = tieRules(line.id, 'plan', verdicts);
  const estimate = estimates.find((e) => e.id === line.estimate);
  if (!estimate) return wanted;
  const comparison = compareEstimate(open, line, estimate);
  return {
    ...fromComparisons(line.id, 'plan', [comparison, ...wanted.comparisons]),
    difference: comparison.difference ?? wanted.difference,
    steps: [...stepsOf(open, estimate), ...wanted.steps],
  };
}

function compareEstimate(open: OpenCase, line: Line, { id, amount, actual, kept, lines }: EstimateFigures): Comparison {
  const last = lines.at(-1)!.line.id;
  const write = (minor: bigint) => `${fromMinor(minor, open.claimCurrency)} ${open.claimCurrency}`;
  const both = {
    claimed: actual === null ? null : write(actual),
    evidence: write(amount),
    tolerance: sayTolerance(open.entity),
  };
  if (line.id !== last)
    return { fact: `estimate ${id}, compared at line ${last}`, ...both, difference: null, state: 'tied' };
  const over = actual !== null && actual > amount ? `+${fromMinor(actual - amount, open.claimCurrency)}` : null;
  return {
    fact: `estimate ${id}`,
    ...both,
    difference: over,
    state: actual === null ? 'open' : kept ? 'tied' : 'off',
  };
}

/** What each of the estimate's lines adds to its actual cost. */
function stepsOf(open: OpenCase, { lines }: EstimateFigures): Step[] {
  return lines.map(({ line, parts }) => {
    const counted = parts.filter((p) => !p.personal).map((p) => p.claimAmount);
    const known = counted.every((c) => c !== null);
    const value = known
      ? `${fromMinor(
          counted.reduce<bigint>((a, c) => a + c!, 0n),
          open.claimCurrency,
        )} ${open.claimCurrency}`
      : 'not known';
    return { label: `line ${line.id}`, value, source: line.merchant ?? null };
  });
}
