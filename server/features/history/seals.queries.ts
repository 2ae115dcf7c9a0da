import type { ChainSeal } from '../../../core/workflow/verifyChain.ts';
import type { Db } from '../../platform/db/connect.ts';

/** Where the chains end of the records that were touched since a moment. */
export async function selectSeals(db: Db, since: Date): Promise<ChainSeal[]> {
  const { rows } = await db.raw(
    `select distinct on (e.record_kind, e.record_id) e.record_kind || ' ' || e.record_id as record, e.seq, e.hash
     from events e where e.at >= ? order by e.record_kind, e.record_id, e.seq desc`,
    [since],
  );
  return rows;
}

/** When seals were last sent. */
export async function selectLastSealing(db: Db): Promise<Date | null> {
  const row = await db('sealings').orderBy('id', 'desc').first('at');
  return row?.at ?? null;
}
export async function insertSealing(db: Db, row: { at: Date; records: number; sha256: string }): Promise<void> {
  await db('sealings').insert(row);
}
