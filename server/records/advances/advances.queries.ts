import type { AdvanceKind } from '../../../core/advances/advance.schema.ts';
import type { AdvanceProblem, OpenAdvance } from '../../../core/advances/advances.types.ts';
import type { AdvanceMovement } from '../../../core/advances/standing.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import type { AdvanceState } from '../../../core/workflow/lifecycles/advance.ts';
import type { Db } from '../../platform/db/connect.ts';

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
  /** What was granted, and before that what is asked for; minor units. */
  amount: bigint;
  requested: bigint;
  kind: AdvanceKind;
  purpose: string;
  trip_from: string | null;
  trip_to: string | null;
  plan_id: bigint | null;
  exception: string | null;
  /** What the rules said when it was asked for, or granted. */
  problems: AdvanceProblem[];
  /** null as long as it was never sent. */
  requested_on: string | null;
  due_by: string | null;
  /** For which day somebody was reminded last. */
  reminded_for: string | null;
}
export type NewAdvance = Pick<
  AdvanceRow,
  | 'person_id'
  | 'entity_id'
  | 'currency'
  | 'amount'
  | 'kind'
  | 'purpose'
  | 'trip_from'
  | 'trip_to'
  | 'plan_id'
  | 'exception'
>
  & Partial<Pick<AdvanceRow, 'id'>>;

/** Writes an advance down, with the next number unless it has one; what was asked for is its amount. */
export async function insertAdvance(trx: Db, row: NewAdvance): Promise<string> {
  const id = row.id ?? (await nextAdvanceNumber(trx));
  await trx('advances').insert({ state: 'draft', ...row, id, requested: row.amount });
  return id;
}
async function nextAdvanceNumber(trx: Db): Promise<string> {
  const { rows } = await trx.raw(`select 'A-' || nextval('advance_numbers') as id`);
  return rows[0].id;
}
export const updateAdvance = async (trx: Db, id: string, columns: Record<string, unknown>): Promise<void> => {
  if (Object.keys(columns).length > 0) await trx('advances').where({ id }).update(columns);
};
export const lockAdvanceRow = (trx: Db, id: string): Promise<AdvanceRow | undefined> =>
  trx('advances').where({ id }).forUpdate().first();
export const selectAdvance = (db: Db, id: string): Promise<AdvanceRow | undefined> =>
  db('advances').where({ id }).first();

/** The item of the ledger that holds what is open of an advance. */
export const ITEM = `i.source_id = a.id and i.source_kind = 'advance' and i.kind = 'staff advance'`;

/** What a person has asked for, been granted or been paid and not accounted for in an entity, apart from one advance. */
export async function selectOpenAdvances(
  db: Db,
  { person, entity, apart }: { person: string; entity: string; apart: string | null },
): Promise<OpenAdvance[]> {
  const rows: OpenAdvance[] = await db('advances as a')
    .joinRaw(`left join open_items i on ${ITEM}`)
    .where({ 'a.person_id': person, 'a.entity_id': entity })
    .whereIn('a.state', ['requested', 'in review', 'to pay out', 'paid out'])
    .whereRaw('a.id is distinct from ?::text', [apart])
    .orderBy('a.id')
    .select('a.id', 'a.currency', 'a.due_by as dueBy')
    .select(db.raw(`case when a.state = 'paid out' then coalesce(i.amount, 0) else a.amount end as open`));
  return rows.filter((a) => a.open !== 0n);
}

/** The advances of a person in an entity that a claim can be set against: paid out, and something of them open; the first due first. */
export const selectUsableAdvances = (db: Db, person: string, entity: string): Promise<string[]> =>
  db('advances as a')
    .joinRaw(`join open_items i on ${ITEM}`)
    .where({ 'a.person_id': person, 'a.entity_id': entity, 'a.state': 'paid out' })
    .where('i.amount', '>', 0)
    .orderBy(['a.due_by', 'a.id'])
    .pluck('a.id');

/** How some advances moved on their account, by advance; a reversal counts as what it reverses. */
export async function selectAdvanceMovements(db: Db, ids: readonly string[]): Promise<Map<string, AdvanceMovement[]>> {
  const rows = await db('advances as a')
    .joinRaw(`join open_items i on ${ITEM}`)
    .join('open_item_movements as m', 'm.item_id', 'i.id')
    .join('journals as j', 'j.id', 'm.journal_id')
    .leftJoin('journals as o', 'o.id', 'j.reverses')
    .whereIn('a.id', [...ids])
    .groupByRaw('a.id, coalesce(o.purpose, j.purpose)')
    .select('a.id')
    .select(
      db.raw(
        'coalesce(o.purpose, j.purpose) as by, sum(m.amount)::bigint as amount, sum(m.ledger_amount)::bigint as ledger',
      ),
    );
  const grouped = groupBy(rows as ({ id: string } & AdvanceMovement)[], (r) => r.id);
  return new Map([...grouped].map(([id, of]) => [id, of.map(({ by, amount, ledger }) => ({ by, amount, ledger }))]));
}

/** Of some advances those whose state no longer says what is open of them, with the act that puts it right. */
export async function selectSettledAdvances(
  trx: Db,
  ids: readonly string[],
): Promise<{ id: string; act: 'settle' | 'reopen' }[]> {
  const rows = await trx('advances as a')
    .joinRaw(`join open_items i on ${ITEM}`)
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
