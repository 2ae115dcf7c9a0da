import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import { distinct, revision, words } from './primitives.ts';

/** The fields of a line finance may correct without sending the claim back. Missing means: leave as it is. */
const correctionSet = z.strictObject({
  category: parts.id.optional(),
  coding: parts.coding.optional(),
  split: parts.split.nullable().optional(),
  tax: z.array(parts.taxEntry).max(50).optional(),
  cut: z
    .strictObject({ amount: parts.amount, reason: words })
    .nullable()
    .optional()
    .describe('How much less is allowed, and why. On a card it becomes private; null: all is allowed again.'),
  country: z
    .string()
    .regex(/^[A-Z]{2}$/, 'is not a country of two letters')
    .nullable()
    .optional(),
  paidBy: z.enum(['own', 'central']).optional().describe('Who paid; what a card paid is the bank’s to say.'),
  rate: z
    .discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('reference') }),
      z.strictObject({ kind: z.literal('own'), value: parts.positive }),
    ])
    .optional()
    .describe('The published rate, or the one the claimant paid.'),
});
const corrected = { item: parts.id.nullish(), set: correctionSet };
export const correctionSchema = z.strictObject({ revision, ...corrected });
export const correctionsSchema = z.strictObject({
  revision,
  corrections: distinct(
    z
      .array(z.strictObject({ line: parts.id, ...corrected }))
      .min(1)
      .max(1000),
    ({ line, item }) => `${line} ${item ?? ''}`,
  ),
});

export type Correction = z.infer<typeof correctionSchema>;
export type LineCorrection = z.infer<typeof correctionsSchema>['corrections'][number];
export type CorrectionSet = z.infer<typeof correctionSet>;
