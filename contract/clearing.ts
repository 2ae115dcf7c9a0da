import { z } from 'zod';
import { FINANCE } from '../core/workflow/lifecycle.types.ts';
import { distinct, id, moment, nothing, recordId } from './primitives.ts';
import { revision } from './primitives.ts';
import { route, type RouteContract } from './route.ts';

/** Claims with nothing off that are cleared together, a share of them drawn for a full look first. */

const MOST = 2000;
export const beginClearingSchema = z.strictObject({
  claims: distinct(
    z
      .array(z.strictObject({ number: id, revision }))
      .min(1)
      .max(MOST),
    ({ number }) => number,
  ),
});
export const clearingBegunAnswer = z.object({ run: recordId });

const item = z.object({
  number: id,
  claimant: z.string(),
  purpose: z.string(),
  outcome: z
    .enum(['drawn', 'cleared', 'left out'])
    .nullable()
    .describe('Drawn for a full look, cleared, left out with the reason; null: still to come.'),
  says: z.string().nullable(),
});
const run = z.object({
  run: recordId,
  at: moment,
  state: z.enum(['running', 'stopped', 'done']),
  chosen: z.number(),
  cleared: z.number(),
  drawn: z.number(),
  leftOut: z.number(),
});
export const clearingAnswer = run.extend({
  seed: z
    .string()
    .describe(
      'Those drawn are the ones whose SHA-256 of seed, a space and number comes first; anybody can draw again.',
    ),
  share: z.string().describe('How many percent are drawn, at least one claim.'),
  items: z.array(item).describe('In the order they were chosen.'),
});
export const clearingsAnswer = z.object({ runs: z.array(run).describe('One’s own last ones, the newest first.') });

export const CLEARING_ROUTES: readonly RouteContract[] = [
  route('get', '/clearings', FINANCE, 'One’s own runs.', clearingsAnswer),
  route(
    'post',
    '/clearings',
    ['reviewer'],
    'Clears claims together, but for a share that is drawn.',
    clearingBegunAnswer,
    {
      body: beginClearingSchema,
      needsKey: true,
      status: 201,
    },
  ),
  route('get', '/clearings/:id', FINANCE, 'A run of one’s own, claim by claim.', clearingAnswer),
  route('post', '/clearings/:id/stop', ['reviewer'], 'Stops a run after the claim it is at.', clearingAnswer, {
    body: nothing,
  }),
  route('post', '/clearings/:id/resume', ['reviewer'], 'Goes on with a run that was stopped.', clearingAnswer, {
    body: nothing,
  }),
];

export type BeginClearing = z.infer<typeof beginClearingSchema>;
export type ClearingAnswer = z.infer<typeof clearingAnswer>;
export type ClearingRun = z.infer<typeof run>;
