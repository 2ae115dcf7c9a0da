import type { Book } from './case.schema.ts';
import type { DimensionValue } from './rules.schema.ts';

/** What is left of the budgets of one code, in ledger currency. */
export interface CodeLeft {
  dimension: string;
  code: string;
  left: string | null;
  caps: { category: string; left: string }[];
}
/** The part of a book that is the same for every claim of an entity, kept once by content. */
export type SharedBook = Omit<Book, 'rates' | 'people' | 'advances'>;
/** The part that is one claim's own: quotes it can need, its claimant, its advances, what was left of the budgets. */
export interface OwnBook {
  rates: Book['rates'];
  people: Book['people'];
  advances: NonNullable<Book['advances']>;
  left: CodeLeft[];
}

/**
 * A whole book from its shared and its own part. Codes without a budget stay without one. Example: "120.00" left for
 * grant G-1 → a budget of G-1 with that left.
 */
export function joinBook(shared: SharedBook, own: OwnBook): Book {
  const left = new Map(own.left.map((l) => [`${l.dimension}/${l.code}`, l]));
  const dimensions = (shared.dimensions ?? []).map((d) => ({
    ...d,
    values: d.values.map((value) => withLeft(value, left.get(`${d.id}/${value.code}`))),
  }));
  return { ...shared, dimensions, rates: own.rates, people: own.people, advances: own.advances };
}

const withLeft = (value: DimensionValue, budget: CodeLeft | undefined): DimensionValue =>
  budget ? { ...value, left: budget.left, ...(budget.caps.length ? { caps: budget.caps } : {}) } : value;
