import type { RateTable } from '../figures/currency/rateTable.ts';
import type { AdvanceKind, AdvanceRule } from './advance.schema.ts';

/** An advance of a person that is asked for, granted or paid out: `open` minor units of its currency. */
export interface OpenAdvance {
  id: string;
  currency: string;
  open: bigint;
  /** null as long as no day was set. */
  dueBy: string | null;
}

/** An advance that is asked for on a day. */
export interface WantedAdvance {
  kind: AdvanceKind;
  entity: string;
  currency: string;
  amount: bigint;
  on: string;
  person: { kind: 'employee' | 'contractor' };
}

/** What is looked at besides: the rules of the day, what the person has open already, and rates. */
export interface AdvanceBook {
  rules: readonly ({ id: string } & AdvanceRule)[];
  others: readonly OpenAdvance[];
  rates: RateTable;
}

/** Why an advance cannot be had (*stop*), or only with a reason (*ask*). */
export interface AdvanceProblem {
  severity: 'stop' | 'ask';
  /** The rule of the book; null where it is no rule that somebody could change. */
  rule: string | null;
  says: string;
}
