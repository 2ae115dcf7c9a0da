import type { Db } from '../../platform/db/connect.ts';
import type { CorrectionState } from '../../../core/workflow/lifecycles/keeping.ts';

export interface RateKey {
  from: string;
  to: string;
  date: string;
}
export interface CorrectionRow {
  id: bigint;
  revision: number;
  state: CorrectionState;
  from_currency: string;
  to_currency: string;
  date: string;
  was: string;
  becomes: string;
  source: string;
  reason: string;
  asked_by: string;
  asked_at: Date;
}

/** A published rate as it is, with its source; undefined where none was published for that day. */
export const selectRate = (db: Db, { from, to, date }: RateKey): Promise<{ rate: string } | undefined> =>
  db('rates').where({ from_currency: from, to_currency: to, date }).first('rate');

export async function insertCorrection(trx: Db, row: Omit<CorrectionRow, 'id' | 'revision'>): Promise<bigint> {
  const [{ id }] = await trx('rate_corrections').insert(row).returning('id');
  return id;
}

/** A correction, locked; undefined when there is none. */
export const lockCorrection = (trx: Db, id: bigint): Promise<CorrectionRow | undefined> =>
  trx('rate_corrections')
    .whereRaw('id = ?', [String(id)])
    .forUpdate()
    .first();

export async function updateCorrection(trx: Db, id: bigint, changes: Record<string, unknown>): Promise<void> {
  await trx('rate_corrections')
    .whereRaw('id = ?', [String(id)])
    .update(changes);
}

/** Puts the rate right, by the one function of the database that may. */
export async function correctRate(
  trx: Db,
  { id, person, proof }: { id: bigint; person: string; proof: string },
): Promise<void> {
  await trx.raw('select correct_rate(?, ?, ?)', [String(id), person, proof]);
}

export interface ShownCorrection extends Omit<CorrectionRow, 'asked_by'> {
  asked_by: string;
  asked_name: string;
  decided_name: string | null;
  decided_at: Date | null;
}
const MOST = 200;
/** Corrections, those that wait first, then the newest. */
export const selectCorrections = (db: Db): Promise<ShownCorrection[]> =>
  db('rate_corrections as c')
    .join('people as a', 'a.id', 'c.asked_by')
    .leftJoin('people as d', 'd.id', 'c.decided_by')
    .orderByRaw(`c.state = 'asked for' desc, c.id desc`)
    .limit(MOST)
    .select('c.*', 'a.name as asked_name', 'd.name as decided_name');
