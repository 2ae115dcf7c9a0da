/** The kinds of comparison, in the order of the tie matrix. */
export const TIE_KINDS = ['receipt', 'card', 'plan', 'rate', 'tax', 'limit', 'coding', 'budget', 'duplicate'] as const;
export type TieKind = (typeof TIE_KINDS)[number];

/** tied: both sides agree · off: they differ · open: there is nothing to compare with · none: does not apply. */
export const TIE_STATES = ['tied', 'off', 'open', 'none'] as const;
export type TieState = (typeof TIE_STATES)[number];

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
  /** What was bought and what says that it was paid, in the paper's words; left out where nobody looked for them. */
  bought?: string | null;
  paid?: string | null;
  /** What the machine read where a person said something else about it; null where nobody changed what was read. */
  changed: { fact: string; read: string; sure: boolean }[];
}
/** A charge of the bank. Amounts are decimal strings; `elsewhere` is how much of it stands on lines of other claims. */
export interface ChargeEvidence {
  id: string;
  card: string;
  amount: string;
  currency: string;
  elsewhere: string;
  settled: { amount: string; currency: string };
  purchasedOn: string;
  bookedOn: string;
  merchant: string;
}
/** A line of any claim that may be the same spending. */
export interface DuplicateEvidence {
  claim: string;
  line: string;
  claimant: string;
  amount: string;
  currency: string;
  date: string;
  merchant: string | null;
  reason: string;
}
/** What the lines of a claim are compared with, by line id. */
export interface Evidence {
  receipts: Record<string, ReceiptEvidence>;
  charges: Record<string, ChargeEvidence>;
  duplicates: Record<string, DuplicateEvidence[]>;
  /** What the person of a journey drove before it, as it counts now, in the unit of the journey. */
  driven?: Record<string, string>;
  /** Lines with more that is alike than was looked at: nothing is tied of them. */
  duplicatesCut?: string[];
}
export const NO_EVIDENCE: Evidence = { receipts: {}, charges: {}, duplicates: {} };
