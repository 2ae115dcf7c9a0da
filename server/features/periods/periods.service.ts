import { periodLifecycle, type PeriodState } from '../../../core/workflow/lifecycles/keeping.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { lockPeriod, updatePeriod, type PeriodKey } from './periods.queries.ts';

interface LockedPeriod extends LockedRecord<PeriodState> {
  key: PeriodKey;
}

/** A period of an entity's ledger. Its history stands under "entity/period". */
const periodStore: RecordStore<PeriodState, LockedPeriod, PeriodKey> = {
  async lock(trx, key) {
    const row = await lockPeriod(trx, key);
    if (!row) return undefined;
    return { ...row, id: `${key.entity}/${key.id}`, name: key.id, entity: key.entity, people: {}, key };
  },
  save: (trx, { key }, changes) => updatePeriod(trx, key, changes),
  exists: () => true,
};

/** A period, as it was seen. */
export interface SeenPeriod extends PeriodKey {
  revision: number;
}

/** Closes a period: nothing can be posted into it until it is opened again. */
export const closePeriod = (context: Context, actor: Actor, { revision, ...key }: SeenPeriod): Promise<void> =>
  inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      { lifecycle: periodLifecycle, store: periodStore, act: 'close', key, actor, revision },
      async () => ({ result: undefined }),
    ),
  );

/** Opens a closed period again, with the reason. */
export const reopenPeriod = (
  context: Context,
  actor: Actor,
  { revision, reason, ...key }: SeenPeriod & { reason: string },
): Promise<void> =>
  inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      { lifecycle: periodLifecycle, store: periodStore, act: 'reopen', key, actor, revision },
      async () => ({ result: undefined, words: { reason } }),
    ),
  );
