import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import { TIE_KINDS } from '../core/evidence/comparisons/tie.types.ts';
import { distinct, revision, words } from './primitives.ts';

/** What a reviewer says of comparisons: seen, waived with a reason, or nothing any more. */
const cell = { revision, line: parts.id, kind: z.enum(TIE_KINDS) };
/** `about` is the fingerprint of the comparison that was seen. */
export const about = z.string().length(64);
const MOST_MARKS = 1000;
const also = distinct(z.array(z.strictObject({ line: parts.id, about })).max(MOST_MARKS), ({ line }) => line)
  .optional()
  .describe('Comparisons of the same kind at other lines that are marked the same.');
export const markSchema = z.discriminatedUnion('mark', [
  z.strictObject({ ...cell, about, also, mark: z.literal('seen') }),
  z.strictObject({ ...cell, about, also, mark: z.literal('waived'), reason: words }),
  z.strictObject({
    ...cell,
    also: distinct(z.array(z.strictObject({ line: parts.id })).max(MOST_MARKS), ({ line }) => line).optional(),
    mark: z.literal('none'),
  }),
]);

export type Mark = z.infer<typeof markSchema>;
