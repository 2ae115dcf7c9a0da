import type { Db } from '../db/connect.ts';

export interface KeyRow {
  request_hash: string;
  response: unknown;
}

export const selectKey = (db: Db, person_id: string, act: string, key: string): Promise<KeyRow | undefined> =>
  db('idempotency_keys').where({ person_id, act, key }).first();

export async function insertKey(
  trx: Db,
  row: KeyRow & { person_id: string; act: string; key: string; at: Date },
): Promise<void> {
  await trx('idempotency_keys').insert({ ...row, response: JSON.stringify(row.response) });
}
