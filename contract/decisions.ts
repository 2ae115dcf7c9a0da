import { z } from 'zod';
import { distinct, id, revision, words } from './primitives.ts';

/** What is asked of a claim as a whole, or of one of its lines, by those who decide about it. */

/** An act that needs no words. */
export const actSchema = z.strictObject({ revision });
export const approveSchema = z.strictObject({ revision, comment: z.string().trim().max(2000).optional() });
export const reasonedSchema = z.strictObject({ revision, reason: words });
export const returnSchema = z.strictObject({
  revision,
  reason: words,
  lines: distinct(z.array(z.strictObject({ line: id, text: words })).max(200), ({ line, text }) => `${line} ${text}`)
    .optional()
    .describe('What is asked at single lines; each is answered there.'),
});
export const oneLineSchema = z.strictObject({ revision, line: id });
export const declineLineSchema = z.strictObject({ revision, line: id, reason: words });
