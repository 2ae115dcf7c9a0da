import type { Asked } from '../../platform/acts/acts.types.ts';
import type { Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectSettledAdvances } from './advances.queries.ts';
import { actOnAdvance } from './advanceStore.ts';
import { useOfAdvance } from './useOfAdvance.ts';

/** An advance that came to zero is settled, one that is open again is not; claims that name it are assessed again. */
export async function settleAdvances(context: Context, trx: Db, ids: readonly string[]): Promise<Asked[]> {
  for (const { id, act } of await selectSettledAdvances(trx, ids))
    await actOnAdvance(context, trx, { act, advance: { number: id, revision: null }, actor: null }, async () => ({
      result: undefined,
    }));
  return [...new Set(ids)].map((id) => ({ name: 'assess-claims' as const, data: { key: useOfAdvance(id) } }));
}
