import { z } from 'zod';
import { parts } from '../../../core/documents/case.schema.ts';

const recordId = z.string().regex(/^\d{1,18}$/);
const revision = z.number().int().min(1);
const category = parts.id.nullish();

/** What becomes lines: a receipt, a charge, or both together as one spending. */
export const takeSchema = z.strictObject({
  /** An existing draft with the revision that was seen; null begins a new claim. */
  claim: z.strictObject({ number: parts.id, revision }).nullable(),
  purpose: z.string().trim().min(1, 'Say what the claim is for.').max(200).nullish(),
  take: z
    .array(
      z.strictObject({
        receipt: recordId.nullish(),
        charge: recordId.nullish(),
        category,
        personal: z.boolean().default(false),
      }),
    )
    .min(1, 'Choose at least one receipt or charge.')
    .max(200),
});
export type Take = z.infer<typeof takeSchema>;

const lineRef = z.strictObject({ claim: parts.id, line: parts.id });
export const pairSchema = z.strictObject({
  revisions: z.record(parts.id, revision),
  pairs: z
    .array(
      z.strictObject({
        lines: z.array(lineRef).min(1).max(5),
        charge: recordId.nullish(),
        receipt: recordId.nullish(),
        /** Where line and charge differ: the line takes the bank's amount. */
        takeAmount: z.boolean().default(false),
      }),
    )
    .min(1)
    .max(500),
});
export type PairRequest = z.infer<typeof pairSchema>;
export const unpairSchema = z.strictObject({
  lines: z.array(lineRef).min(1).max(500),
  what: z.enum(['charge', 'receipt']),
});
export type UnpairRequest = z.infer<typeof unpairSchema>;

/** The fields of a draft's line its claimant changes. Missing means: leave as it is. */
export const lineSchema = z.strictObject({
  revision,
  set: z.strictObject({
    category: parts.id.optional(),
    description: z.string().max(300).nullable().optional(),
    date: parts.date.optional(),
    merchant: z.string().trim().max(140).nullable().optional(),
    amount: z.strictObject({ amount: parts.amount, currency: parts.currency }).optional(),
    items: z.array(parts.item).max(40).optional(),
  }),
});
export type LineEdit = z.infer<typeof lineSchema>;
