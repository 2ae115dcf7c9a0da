import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import { recordId } from './primitives.ts';

/** Codes as one person uses them: which come first, and codings saved under a name. A dimension of null is the category. */
const dimension = parts.id.nullable();
const codings = z.object({
  id: recordId.nullable().describe('null: one that everybody has.'),
  name: z.string(),
  coding: parts.coding,
  split: parts.split.nullable(),
});
export const ownCodesAnswer = z.object({
  recent: z.array(z.object({ dimension, codes: z.array(z.string()) })),
  favourites: z.array(z.object({ dimension, code: z.string() })),
  codings: z.array(codings),
});
export const favouriteSchema = z.strictObject({ dimension, code: parts.id, on: z.boolean() });
export const saveCodingSchema = z.strictObject({
  name: z.string().trim().min(1, 'Give it a name.').max(80),
  coding: parts.coding,
  split: parts.split.nullable().default(null),
});

export type OwnCodes = z.infer<typeof ownCodesAnswer>;
export type SavedCoding = z.infer<typeof codings>;
export type Favourite = z.infer<typeof favouriteSchema>;
export type SaveCoding = z.infer<typeof saveCodingSchema>;
