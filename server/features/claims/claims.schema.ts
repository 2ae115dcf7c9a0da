import { z } from 'zod';
import { parts } from '../../../core/documents/case.schema.ts';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';

/** What the claims routes take. Every write names the revision it read. */
const revision = z.number().int().min(1);
const words = z.string().trim().min(1, 'Say why in a few words.').max(2000, 'Keep it under 2,000 characters.');
const kind = z.enum(TIE_KINDS);

/** The fields of a line finance may correct without sending the claim back. Missing means: leave as it is. */
export const correctionSchema = z.strictObject({
  revision,
  item: parts.id.nullish(),
  set: z.strictObject({
    category: parts.id.optional(),
    coding: parts.coding.optional(),
    split: parts.split.nullable().optional(),
    tax: z.array(parts.taxEntry).optional(),
  }),
});
export const markSchema = z.discriminatedUnion('mark', [
  z.strictObject({ revision, line: parts.id, kind, mark: z.literal('seen') }),
  z.strictObject({ revision, line: parts.id, kind, mark: z.literal('waived'), reason: words }),
  z.strictObject({ revision, line: parts.id, kind, mark: z.literal('none') }),
]);
export const querySchema = z.strictObject({ revision, line: parts.id, kind: kind.nullish(), text: words });
export const clearSchema = z.strictObject({ revision });
export const returnSchema = z.strictObject({ revision, reason: words });
export const holdSchema = z.strictObject({
  revision,
  hold: z.strictObject({ reason: words, until: parts.date }).nullable(),
});
export const listSchema = z.strictObject({
  state: z.string().max(40).optional(),
  q: z.string().max(200).optional(),
  after: z.string().max(200).optional(),
});

export type Correction = z.infer<typeof correctionSchema>;
export type Mark = z.infer<typeof markSchema>;
