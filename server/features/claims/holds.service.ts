import type { Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { keptClaim, standingOf, summaryColumns } from '../../records/claims/assessClaim.ts';
import { lockClaimRow, selectHoldsOver, updateClaim } from '../../records/claims/claims.queries.ts';
import { selectMarks } from '../../records/claims/marks.queries.ts';

/**
 * Puts claims whose hold is over back where they belong in the queue. It is no act: the hold and its reason stay until somebody
 * takes it off. Doing it twice changes nothing.
 */
export async function endHolds(context: Pick<Context, 'db' | 'clock'>): Promise<void> {
  const { db, clock } = context;
  for (const number of await selectHoldsOver(db, clock.now()))
    await inTransaction(context, async (trx) => {
      const row = (await lockClaimRow(trx, number))!;
      if (row.state !== 'in review') return;
      const at = { claim_id: row.id, version: row.version };
      const columns = summaryColumns(await keptClaim(trx, at), await selectMarks(trx, at), standingOf(row, clock));
      await updateClaim(trx, row.id, columns);
    });
}
