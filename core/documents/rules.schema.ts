import { z } from 'zod';
import {
  MOST_DIMENSIONS,
  amount,
  count,
  currency,
  dated,
  dimension,
  fieldName,
  id,
  notNegative,
  text,
} from './primitives.ts';

/**
 * The rules of the book that are data, not code: what codes there are, which go together, what the policy allows.
 * Described for their authors in docs/documents.md.
 */
const severity = z.enum(['stop', 'ask', 'note']);

const cap = z.strictObject({ category: id, left: amount });
const dimensionValue = z.strictObject({
  code: id,
  name: text.nullish(),
  /** Who answers a question about the code. */
  owner: text.nullish(),
  /** Categories that may be charged to it; all when missing. */
  categories: z.array(id).max(1000).nullish(),
  /** What is left of its budget before this claim, in ledger currency; no budget when missing. */
  left: amount.nullish(),
  /** What is left for single categories before this claim, in ledger currency. */
  caps: z.array(cap).max(1000).nullish(),
  ...dated,
});
export const dimensionSchema = z.strictObject({
  id: dimension,
  name: text.nullish(),
  values: z.array(dimensionValue).max(100_000),
});

/** Dimension (or `account`, `category`) to the codes meant; "*" is any code. */
const codes = z.record(dimension, z.union([z.literal('*'), z.array(id).min(1).max(1000)]));

const rule = { id, severity, says: text.nullish(), ...dated };
export const codingRuleSchema = z.strictObject({
  ...rule,
  when: codes.nullish(),
  require: z.array(dimension).max(MOST_DIMENSIONS).nullish(),
  allow: codes.nullish(),
  forbid: codes.nullish(),
  owner: text.nullish(),
});

const money = z.strictObject({ amount: notNegative, currency });
const scope = { ...rule, categories: z.array(id).max(1000).nullish(), countries: z.array(id).max(300).nullish() };

export const limitSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...scope,
    kind: z.literal('cap'),
    per: z.enum(['item', 'day', 'night', 'head', 'trip']),
    cap: money,
    tolerance: notNegative.nullish(),
  }),
  z.strictObject({ ...scope, kind: z.literal('receipt'), above: money }),
  z.strictObject({
    ...scope,
    kind: z.literal('fields'),
    fields: z.array(fieldName).min(1).max(100),
    namesUnder: count.nullish(),
  }),
  z.strictObject({ ...scope, kind: z.literal('age'), days: z.number().int().min(0) }),
  z.strictObject({ ...scope, kind: z.literal('weekend') }),
  z.strictObject({
    ...scope,
    kind: z.literal('near'),
    cap: money,
    within: notNegative,
    charges: z.number().int().min(2),
  }),
  z.strictObject({ ...scope, kind: z.literal('plan'), above: money.nullish() }),
  z.strictObject({ ...scope, kind: z.literal('text'), longest: z.number().int().min(1) }),
]);

export type Dimension = z.infer<typeof dimensionSchema>;
export type DimensionValue = Dimension['values'][number];
export type CodingRule = z.infer<typeof codingRuleSchema>;
export type Limit = z.infer<typeof limitSchema>;
export type LimitOf<Kind extends Limit['kind']> = Extract<Limit, { kind: Kind }>;
export type Codes = NonNullable<CodingRule['when']>;
