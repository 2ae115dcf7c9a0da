import type { Severity } from '../../documents/finding.ts';

/**
 * What a rule of the book came to, whether it was kept or not: the base of findings and of the limit, coding and budget
 * comparisons. Amounts are decimal strings of `unit`, a currency, or plain numbers.
 */
export interface Verdict {
  rule: string;
  kind: 'limit' | 'plan' | 'coding' | 'budget';
  severity: Severity;
  kept: boolean;
  /** Nothing speaks against it yet, and not everything it looks at can be computed. */
  unknown?: boolean;
  line: string | null;
  item: string | null;
  /** What was looked at, in words: "per night", "project TIDE-04". */
  subject: string;
  actual: string | null;
  allowed: string | null;
  unit: string | null;
  difference: string | null;
  says: string;
  /** What the rule wants, as a sentence. */
  wants: string;
  /** One or two words for where there is no figure to show. */
  short: string;
  /** Who answers a question about the code, when one is named. */
  owner: string | null;
}

/** A verdict before the sentence of its rule is added. */
export type Judged = Omit<Verdict, 'wants'>;
