import { toMinor } from '../../numbers/amount.ts';

/** A line that may be the actual cost of an estimate; `amount` in the claim's currency, null while it is not known. */
export interface CostOfEstimate {
  category: string | null;
  amount: string | null;
}
/** An estimate with what was spent of it until now, both in the claim's currency. */
export interface OpenEstimate {
  id: string;
  category: string | null;
  amount: string;
  actual: string | null;
}
/** How likely a line is the cost of an estimate, 0 to 100, with the reasons. */
export interface EstimateScore {
  id: string;
  score: number;
  reasons: string[];
}

const SAME_CATEGORY = 60;
const FITS = 20;
const ALONE = 20;

/**
 * The estimates a line may be the cost of, the likeliest first: those of its category, more likely where it fits into what
 * is left and where no other estimate has that category. Example: a meal of 12.00, one estimate of meals with 40.00 left
 * → 100. Without an estimate of its category [].
 */
export function scoreEstimates(
  line: CostOfEstimate,
  estimates: readonly OpenEstimate[],
  currency: string,
): EstimateScore[] {
  const alike = estimates.filter((e) => e.category !== null && e.category === line.category);
  return alike
    .map((estimate) => {
      const fits = fitsInto(line, estimate, currency);
      const alone = alike.length === 1;
      const reasons = [
        'same category',
        ...(alone ? ['the only one of it'] : []),
        fits ? 'within what is left' : 'more than is left',
      ];
      return { id: estimate.id, score: SAME_CATEGORY + (fits ? FITS : 0) + (alone ? ALONE : 0), reasons };
    })
    .sort((a, b) => b.score - a.score);
}

function fitsInto({ amount }: CostOfEstimate, estimate: OpenEstimate, currency: string): boolean {
  if (amount === null) return false;
  const spent = estimate.actual === null ? 0n : toMinor(estimate.actual, currency);
  return spent + toMinor(amount, currency) <= toMinor(estimate.amount, currency);
}
