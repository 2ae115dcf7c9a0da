import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import { CORRECTION_STATES } from '../core/workflow/lifecycles/keeping.ts';
import { positive } from '../core/documents/primitives.ts';
import { date, moment, recordId, revision, words } from './primitives.ts';

/** Published rates that were entered wrongly: one person asks for the right one, another one lets it be. */
const source = z.string().trim().min(1, 'Say where the rate is published.').max(200);
const pair = { from: parts.currency, to: parts.currency, date };

export const askCorrectionSchema = z.strictObject({
  ...pair,
  becomes: positive.describe('What 1 unit of `from` is in units of `to`.'),
  source,
  reason: words,
});
export const decideCorrectionSchema = z.strictObject({ revision });

const correction = z.object({
  id: recordId,
  revision: z.number(),
  state: z.enum(CORRECTION_STATES),
  ...pair,
  was: z.string(),
  becomes: z.string(),
  source: z.string(),
  reason: z.string(),
  askedBy: z.string(),
  askedAt: moment,
  decidedBy: z.string().nullable(),
  decidedAt: moment.nullable(),
  own: z.boolean().describe('Whether it was asked for by whoever looks; somebody else decides about it.'),
});
export const correctionsAnswer = z.object({ corrections: z.array(correction) });

export type AskCorrection = z.infer<typeof askCorrectionSchema>;
export type RateCorrection = z.infer<typeof correction>;
