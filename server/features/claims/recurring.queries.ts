import type { Recurrence } from '../../../contract/drafts.ts';
import type { NewLine } from '../../../contract/drafts.ts';
import type { Db } from '../../platform/db/connect.ts';

/** A line that comes again on claims of a person. */
export interface RecurringRow {
  id: bigint;
  person_id: string;
  every: Recurrence;
  first_on: string;
  /** The next day that is not dealt with. */
  next_on: string;
  until: string | null;
  line: NewLine;
}

export async function insertRecurring(trx: Db, { line, ...row }: Omit<RecurringRow, 'id'>): Promise<void> {
  await trx('recurring_lines').insert({ ...row, line: JSON.stringify(line) });
}
export const selectRecurring = (db: Db, person: string): Promise<RecurringRow[]> =>
  db('recurring_lines').where({ person_id: person }).orderBy(['next_on', 'id']);

const byId = (db: Db, id: bigint) => db('recurring_lines').whereRaw('id = ?', [String(id)]);
/** A recurring line of a person, locked until the transaction ends. */
export const lockRecurring = (trx: Db, person: string, id: bigint): Promise<RecurringRow | undefined> =>
  byId(trx, id).where({ person_id: person }).forUpdate().first();
export async function updateNext(trx: Db, id: bigint, next: string): Promise<void> {
  await byId(trx, id).update({ next_on: next });
}
export async function deleteRecurring(trx: Db, id: bigint): Promise<void> {
  await byId(trx, id).delete();
}
