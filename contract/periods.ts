import { z } from 'zod';
import { date, id, revision, words } from './primitives.ts';

/** Periods of the ledger: a closed one takes no posting. */
export const closePeriodSchema = z.strictObject({ revision });
export const reopenPeriodSchema = z.strictObject({ revision, reason: words });
const period = z.object({
  entity: id,
  id,
  from: date,
  to: date,
  state: z.enum(['open', 'closed']),
  revision: z.number(),
});
export const periodsAnswer = z.object({ periods: z.array(period) });
