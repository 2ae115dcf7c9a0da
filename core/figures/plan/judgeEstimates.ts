import type { Entity, Plan } from '../../documents/case.schema.ts';
import { finding, type Finding } from '../../documents/finding.ts';
import { fromMinor, minorPerMajor, sumKnown, toMinor } from '../../numbers/amount.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { compare, fraction, times, ZERO, type Fraction } from '../../numbers/fraction.ts';
import type { Figure, LineFigures, OpenCase } from '../figures.types.ts';

/** An estimate of the claim's plan beside what was spent of it, in minor units of the claim's currency. */
export interface EstimateFigures {
  id: string;
  amount: bigint;
  /** What its lines came to, whoever paid, without what is private or cut; null while one of them is not known. */
  actual: Figure;
  kept: boolean;
  /** The lines that are its actual cost, in their order. */
  lines: readonly LineFigures[];
}

/**
 * Every estimate of the claim's plan against the lines that name it (rule 30): kept unless it is exceeded by more than the
 * entity's percentage and by more than its amount, both unrounded; without a tolerance by anything. Example: estimate
 * 200.00, tolerance 10 % and 25.00 → 225.00 is kept, 225.01 is not.
 */
export function judgeEstimates(open: OpenCase, lines: readonly LineFigures[]): EstimateFigures[] {
  const { plan } = open.case.claim;
  if (!plan) return [];
  const least = leastOver(open, plan);
  return plan.estimates.map(({ id, amount }) => {
    const own = lines.filter(({ line }) => line.estimate === id);
    const actual = sumKnown(own.flatMap(({ parts }) => parts.filter((p) => !p.personal).map((p) => p.claimAmount)));
    const planned = toMinor(amount, open.claimCurrency);
    const over = actual === null ? ZERO : fraction(actual - planned);
    const tooMuch = over.n > 0n && least(planned).every((limit) => compare(over, limit) > 0);
    return { id, amount: planned, actual, kept: !tooMuch, lines: own };
  });
}

/** By how much an estimate may be exceeded: by each of these, in minor units of the claim's currency. */
function leastOver(open: OpenCase, plan: Plan): (planned: bigint) => Fraction[] {
  const { percent, amount } = open.entity.planTolerance ?? {};
  const share = times(decimalToFraction(percent ?? '0'), fraction(1n, 100n));
  const fixed = amount == null ? ZERO : inClaimCurrency(open, plan, amount);
  return (planned) => [times(fraction(planned), share), fixed];
}

/** An amount in ledger currency by the rate of the day on which the plan was approved; 0 without one. */
function inClaimCurrency({ rates, ledgerCurrency, claimCurrency }: OpenCase, plan: Plan, amount: string): Fraction {
  const rate = rates.find(ledgerCurrency, claimCurrency, plan.approvedOn);
  return rate ? times(times(decimalToFraction(amount), rate.value), fraction(minorPerMajor(claimCurrency))) : ZERO;
}

/** The tolerance in words, null without one. {percent: "10", amount: "25.00"} in EUR → "10 % and 25.00 EUR". */
export function sayTolerance({ planTolerance, currency }: Entity): string | null {
  const { percent, amount } = planTolerance ?? {};
  const both = [...(percent != null ? [`${percent} %`] : []), ...(amount != null ? [`${amount} ${currency}`] : [])];
  return both.length > 0 ? both.join(' and ') : null;
}

/** An *ask* about each estimate that was not kept. */
export function findingsOfEstimates(open: OpenCase, estimates: readonly EstimateFigures[]): Finding[] {
  const write = (minor: bigint) => fromMinor(minor, open.claimCurrency);
  return estimates.flatMap(({ id, amount, actual, kept }) =>
    kept
      ? []
      : finding(
          'plan-over',
          { line: null, item: null },
          {
            estimate: id,
            plan: open.case.claim.plan!.number,
            allowed: write(amount),
            actual: write(actual!),
            currency: open.claimCurrency,
            difference: write(actual! - amount),
          },
        ),
  );
}
