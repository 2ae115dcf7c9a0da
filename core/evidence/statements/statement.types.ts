/** One movement on a card's account as the bank states it. */
export interface StatementEntry {
  /** The bank's own reference, the same in every document it sends; null where the format has none. */
  reference: string | null;
  /** ISO 8601. */
  bookedOn: string;
  /** The day of the purchase where the bank tells it. */
  purchasedOn: string | null;
  /** What the bank took, in the account's currency: positive is spent, negative came back. */
  settled: string;
  /** What the merchant charged, with the same sign; null where it is the settled amount. */
  charged: { amount: string; currency: string } | null;
  merchant: string;
  /** ISO 3166 alpha-2. */
  country: string | null;
  /** Merchant category code of ISO 18245, four digits. */
  categoryCode: string | null;
}

/** What a bank says of one account over some days. Balances are from the holder's side: owing is negative. */
export interface Statement {
  id: string | null;
  account: string;
  currency: string;
  from: string | null;
  to: string | null;
  opening: string | null;
  closing: string | null;
  entries: StatementEntry[];
  /** What the document itself says there is, to be checked against what the standard counts. */
  stated: { count: number | null; sum: string | null };
  /**
   * What the standard counts, where that is not `entries`: batches count once, and what is not yet booked, which is not in
   * `entries`, may be counted or not.
   */
  counted?: { count: number; sum: string }[];
  /** How many entries were left out because they are not yet booked. */
  pending?: number;
}
