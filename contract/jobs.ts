import { z } from 'zod';
import { moment, nothing } from './primitives.ts';

/** Work in the background that failed: what, since when, and what becomes of it. Nothing of whom or what it was about. */
const failedJob = z.object({
  id: z.uuid(),
  name: z.string(),
  since: moment,
  tries: z.number(),
  why: z.string(),
  next: moment.nullable().describe('When it is tried again; null: it was given up.'),
});
export const failedJobsAnswer = z.object({ jobs: z.array(failedJob) });
export const againSchema = nothing;
export type FailedJob = z.infer<typeof failedJob>;
