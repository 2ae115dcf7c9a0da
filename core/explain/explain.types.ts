/** A published quote that was used; `from` and `to` as it was applied, `quoted` as it was published. */
export interface ExplainedRate {
  from: string;
  to: string;
  quoted: string;
  /** True when the quote was published the other way round and 1 ÷ quoted was used. */
  reciprocal: boolean;
  date: string;
  source: string | null;
}

/** How one figure came about. `exact` is cut (not rounded) at twelve decimals; null where the figure is a difference. */
export interface Explanation {
  figure: string;
  line: string;
  item: string | null;
  share: number | null;
  /** Number of the rule in the calculations. */
  rule: string;
  inputs: Record<string, string>;
  rates: ExplainedRate[];
  formula: string;
  exact: string | null;
  result: string | null;
  currency: string;
}
