import type { Finding } from '../../../core/documents/finding.ts';
import type { Explanation } from '../../../core/explain/explain.types.ts';
import type { Missing } from '../../../core/figures/plan/missingOfPlan.ts';
import type { EstimateValue } from '../../../core/figures/plan/valueEstimate.ts';

/** What was computed of a plan, as it is kept with it; amounts are decimal strings, `amounts` in the plan's currency. */
export interface KeptPlan {
  /** The day whose rates were taken. */
  on: string;
  values: Record<string, EstimateValue>;
  amounts: Record<string, string | null>;
  missing: Missing[];
  findings: Finding[];
  explained: Record<string, Explanation[]>;
}

/** One thing that was offered, with its price. */
export interface Option {
  says: string;
  amount: string;
  currency: string;
}
