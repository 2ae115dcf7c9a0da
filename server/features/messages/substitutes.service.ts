import { DECIDERS } from '../../../core/workflow/lifecycle.types.ts';
import type { Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { insertStandIns } from './messages.queries.ts';

/**
 * Tells whoever stands in for somebody today what waits for them, each record once. What is asked anew while somebody is away
 * goes to their substitute by its route; this is about what waited before they left.
 */
export const tellSubstitutes = (context: Context): Promise<void> =>
  inTransaction(context, async (trx) => {
    const wanted = await insertStandIns(trx, { at: context.clock.now(), roles: DECIDERS });
    if (wanted.includes('at once')) await context.jobs.ask(trx, 'send-mail', {});
  });
