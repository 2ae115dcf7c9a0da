import { audienceOf } from '../../../core/workflow/audienceOf.ts';
import type { AdvanceState } from '../../../core/workflow/lifecycles/advance.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { lastDecider } from '../routing/lastDecider.ts';

export interface AdvanceRow {
  id: string;
  revision: number;
  state: AdvanceState;
  person_id: string;
  deciders: string[];
  approvers: string[];
  decided_by: string | null;
  decided_in: number | null;
  entity_id: string;
  currency: string;
  amount: bigint;
  purpose: string;
  requested_on: string;
  due_by: string | null;
}
export interface LockedAdvance extends LockedRecord<AdvanceState> {
  row: AdvanceRow;
}

export const advanceStore: RecordStore<AdvanceState, LockedAdvance, string> = {
  async lock(trx, id) {
    const row: AdvanceRow | undefined = await trx('advances').where({ id }).forUpdate().first();
    if (!row) return undefined;
    const people = { claimant: row.person_id, approver: row.deciders, decider: lastDecider(row) };
    return { id, name: id, state: row.state, entity: row.entity_id, revision: row.revision, people, row };
  },
  async save(trx, { id }, changes) {
    await trx('advances').where({ id }).update(changes);
  },
  exists: ({ row, ...record }, actor) =>
    audienceOf({ ...record, submitted: true, approvers: row.approvers }, actor) !== null,
};

export type NewAdvance = Omit<AdvanceRow, 'revision' | 'deciders' | 'approvers' | 'decided_by' | 'decided_in'>;
export async function insertAdvance(trx: Db, row: NewAdvance): Promise<void> {
  await trx('advances').insert(row);
}

/** Of some advances those whose state no longer says what is open of them, with the act that puts it right. */
export async function selectSettledAdvances(
  trx: Db,
  ids: readonly string[],
): Promise<{ id: string; act: 'settle' | 'reopen' }[]> {
  const rows = await trx('advances as a')
    .join('open_items as i', (on) =>
      on.on('i.source_id', 'a.id').andOnVal('i.source_kind', 'advance').andOnVal('i.kind', 'staff advance'),
    )
    .whereIn('a.id', [...ids])
    .whereIn('a.state', ['paid out', 'settled'])
    .groupBy('a.id')
    .orderBy('a.id')
    .select('a.id', 'a.state', trx.raw('sum(i.amount)::bigint as open'));
  return rows.flatMap(({ id, state, open }: { id: string; state: string; open: bigint }) => {
    const act = open === 0n ? ('settle' as const) : ('reopen' as const);
    const agrees = (open === 0n) === (state === 'settled');
    return agrees ? [] : [{ id, act }];
  });
}
