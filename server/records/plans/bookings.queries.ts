import type { Db } from '../../platform/db/connect.ts';
import type { Option } from './plans.types.ts';

/** What was offered for a plan, what was taken of it, and how that is paid. */
export interface BookingRow {
  id: bigint;
  plan_id: bigint;
  estimate: string | null;
  what: string;
  date: string;
  options: Option[];
  /** Which of the options; null while none is taken. */
  chosen: number | null;
  paid_by: 'card' | 'central';
  confirmation: string | null;
  by_id: string;
  at: Date;
}
export type NewBooking = Omit<BookingRow, 'id'>;

const written = ({ options, ...row }: Partial<BookingRow>) => ({
  ...row,
  ...(options ? { options: JSON.stringify(options) } : {}),
});
export async function insertBooking(trx: Db, row: NewBooking): Promise<void> {
  await trx('plan_bookings').insert(written(row));
}

const ofPlan = (db: Db, planId: bigint, id: bigint) =>
  db('plan_bookings').whereRaw('plan_id = ? and id = ?', [String(planId), String(id)]);
export const selectBooking = (db: Db, planId: bigint, id: bigint): Promise<BookingRow | undefined> =>
  ofPlan(db, planId, id).first();
export async function updateBooking(trx: Db, planId: bigint, id: bigint, set: Partial<BookingRow>): Promise<void> {
  await ofPlan(trx, planId, id).update(written(set));
}
export async function deleteBooking(trx: Db, planId: bigint, id: bigint): Promise<void> {
  await ofPlan(trx, planId, id).delete();
}

export type NamedBooking = BookingRow & { by: string };
/** The bookings of a plan in the order in which they were recorded. */
export const selectBookings = (db: Db, planId: bigint): Promise<NamedBooking[]> =>
  db('plan_bookings as b')
    .join('people as p', 'p.id', 'b.by_id')
    .whereRaw('b.plan_id = ?', [String(planId)])
    .orderBy('b.id')
    .select('b.*', 'p.name as by');
