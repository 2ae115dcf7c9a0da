/** One side of a pair: a line, a charge or a receipt, with what it can be recognised by. */
export interface Side {
  id: string;
  /** Amount in minor units of `currency`; null when it is not known. */
  amount: bigint | null;
  currency: string | null;
  /** What the bank took, where that is another currency. */
  settled?: { amount: bigint; currency: string } | null;
  /** What the amount comes to in other currencies at the published rate of its day, or else at one the bank took near that day. */
  estimates?: readonly { amount: bigint; currency: string; bankOn?: string }[];
  /** ISO 8601. */
  date: string | null;
  merchant: string | null;
  /** The card it is known to be of: another one is another spending. */
  card?: string | null;
  /** The last digits of the card as they were read from a paper, or as the known card has them. */
  digits?: string | null;
}

/** A proposed pair: usually one on each side; several on one of them when together they are the other. */
export interface Pair {
  left: string[];
  right: string[];
  /** 0 to 100; 100 is the same in everything. */
  score: number;
  reasons: string[];
  /** What differs though it looks like the same spending; such a pair is accepted by itself, never with others. */
  differs: string | null;
}

/** How likely two sides are the same spending, with the reasons. */
export interface Score {
  score: number;
  reasons: string[];
  differs: string | null;
}
