/** The kinds of comparison, in the order of the tie matrix. */
export const TIE_KINDS = ['receipt', 'rate', 'tax', 'limit', 'coding', 'budget'] as const;
export type TieKind = (typeof TIE_KINDS)[number];

/** tied: both sides agree · off: they differ · open: there is nothing to compare with · none: does not apply. */
export type TieState = 'tied' | 'off' | 'open' | 'none';

/** One fact compared: what the claim says, what the evidence says, and the difference with what is tolerated. */
export interface Comparison {
  fact: string;
  claimed: string | null;
  evidence: string | null;
  difference: string | null;
  tolerance: string | null;
  state: TieState;
}
/** One step of a computation, in words and figures, exact and rounded. */
export interface Step {
  label: string;
  value: string;
  source: string | null;
}
export interface Tie {
  line: string;
  kind: TieKind;
  state: TieState;
  /** The difference to show in the matrix, with its unit; null when there is none. */
  difference: string | null;
  comparisons: Comparison[];
  steps: Step[];
}

/** A receipt as it was read; `id` tells which lines share it. */
export interface ReceiptEvidence {
  id: string;
  amount: string | null;
  currency: string | null;
  date: string | null;
  merchant: string | null;
  taxNumber: string | null;
}
/** The receipt of each line that has one, by line id. */
export type Evidence = Record<string, ReceiptEvidence>;
