/** One side of a pair: a line, a charge or a receipt, with what it can be recognised by. */
export interface Side {
  id: string;
  /** Amount in minor units of `currency`; null when it is not known. */
  amount: bigint | null;
  currency: string | null;
  /** What the bank took, where that is another currency. */
  settled?: { amount: bigint; currency: string } | null;
  /** ISO 8601. */
  date: string | null;
  merchant: string | null;
  /** The last four digits of the card. */
  card?: string | null;
}

/** A proposed pair: usually one left side; several when together they are the right one. */
export interface Pair {
  left: string[];
  right: string;
  /** 0 to 100; 100 is the same in everything. */
  score: number;
  reasons: string[];
}
