import { READERS } from '../../../contract/statements.ts';
import { actsOpen } from '../../../core/workflow/judgeAct.ts';
import { statementLifecycle, type StatementState } from '../../../core/workflow/lifecycles/gathering.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { lockCharges, selectClosedMonthOf } from '../../records/cards/cards.queries.ts';
import {
  lockStatement,
  type LockedStatement,
  removeCharges,
  saveStatementState,
  selectChargesOfOnly,
  selectUsesOf,
} from './takeBack.queries.ts';

const factsOf = ({ state, entity, holder }: Pick<LockedStatement, 'state' | 'entity' | 'holder'>) => ({
  state,
  entity,
  people: { holder },
});

const statementStore: RecordStore<StatementState, LockedRecord<StatementState>, bigint> = {
  async lock(trx, id) {
    const row = await lockStatement(trx, id);
    if (!row) return undefined;
    return { id: String(id), name: row.name, revision: 1, ...factsOf(row) };
  },
  save: (trx, { id }, { state }) => saveStatementState(trx, id, state as StatementState),
  exists: ({ entity }, actor) => entity !== null && READERS.some((role) => actor.holds(role, entity)),
};

/** What somebody may do with a statement that they see. */
export const actsOpenOn = (statement: Pick<LockedStatement, 'state' | 'entity' | 'holder'>, actor: Actor) =>
  actsOpen(statementLifecycle, factsOf(statement), actor, { isOn: () => true });

/**
 * Takes an import back: the charges that came by it alone go, as long as none of them stands on a line, is marked or
 * belongs to a closed month. The statement stays as it came and says so; its file can be imported again. The number of
 * charges that went.
 */
export const takeImportBack = (context: Context, actor: Actor, id: bigint): Promise<number> =>
  inTransaction(context, async (trx) => {
    const wanted = { lifecycle: statementLifecycle, store: statementStore, act: 'takeBack', key: id, actor } as const;
    const charges = await perform(context, trx, { ...wanted, revision: null }, async ({ name }) => {
      const only = await selectChargesOfOnly(trx, id);
      await lockCharges(trx, only);
      await refuseUsed(trx, name, only);
      return { result: only, facts: { removed: only.length } };
    });
    // the database lets go of them once the statement says that it was taken back
    await removeCharges(trx, id, charges);
    return charges.length;
  });

async function refuseUsed(trx: Db, name: string, charges: readonly string[]): Promise<void> {
  const { claims, marked } = await selectUsesOf(trx, charges);
  const closed = await selectClosedMonthOf(trx, charges);
  const uses = [
    ...claims.map((claim) => `on claim ${claim}`),
    ...(marked > 0 ? [`${marked} marked as claimed already`] : []),
    ...(closed ? [`in the closed month ${closed.month}`] : []),
  ];
  if (uses.length > 0) throw new Refused('import-used', { name, uses: uses.join(', ') });
}
