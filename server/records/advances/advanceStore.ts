import { audienceOf, type LookedAt } from '../../../core/workflow/audienceOf.ts';
import { advanceLifecycle, type AdvanceAct, type AdvanceState } from '../../../core/workflow/lifecycles/advance.ts';
import type { LockedRecord, Outcome, RecordStore } from '../../platform/acts/acts.types.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { toldAbout } from '../../platform/messages/tell.ts';
import { lastDecider } from '../routing/lastDecider.ts';
import { lockAdvanceRow, updateAdvance, type AdvanceRow } from './advances.queries.ts';

export interface LockedAdvance extends LockedRecord<AdvanceState> {
  row: AdvanceRow;
}

/** What the lifecycle and the audiences look at. */
export const advanceFacts = (row: AdvanceRow): LookedAt & { state: AdvanceState } => ({
  state: row.state,
  entity: row.entity_id,
  submitted: row.requested_on !== null,
  approvers: row.approvers,
  people: { claimant: row.person_id, approver: row.deciders, decider: lastDecider(row) },
});

const advanceStore: RecordStore<AdvanceState, LockedAdvance, string> = {
  async lock(trx, id) {
    const row = await lockAdvanceRow(trx, id);
    return row && { ...advanceFacts(row), id, name: id, revision: row.revision, row };
  },
  save: (trx, { id }, changes) => updateAdvance(trx, id, changes),
  exists: ({ row }, actor) => audienceOf(advanceFacts(row), actor) !== null,
  told(advance, columns) {
    const row: AdvanceRow = { ...advance.row, ...columns };
    const about = { ...toldAbout(row.person_id, row, row.amount), dueBy: row.due_by };
    return { people: advanceFacts(row).people, about };
  },
};

/** Which advance, as the actor has seen it. */
export interface SeenAdvance {
  number: string;
  revision: number;
}

/** Does an act on an advance inside a transaction; without an actor it is the system's, which has seen nothing. */
export const actOnAdvance = <Result>(
  context: Context,
  trx: Db,
  {
    act,
    advance,
    actor,
  }: { act: AdvanceAct; advance: { number: string; revision: number | null }; actor: Actor | null },
  work: (advance: LockedAdvance) => Promise<Outcome<Result>>,
): Promise<Result> =>
  perform(
    context,
    trx,
    { lifecycle: advanceLifecycle, store: advanceStore, act, key: advance.number, actor, revision: advance.revision },
    work,
  );
