import type { Db } from './connect.ts';

export interface KeyOf {
  person_id: string;
  act: string;
  key: string;
}
export interface KeyRow {
  request_hash: string;
  response: { v8: string };
}

export const selectKey = (db: Db, of: KeyOf): Promise<KeyRow | undefined> =>
  db('idempotency_keys')
    .where({ ...of })
    .first('request_hash', 'response');

export async function insertKey(trx: Db, row: KeyOf & KeyRow & { at: Date }): Promise<void> {
  await trx('idempotency_keys').insert({ ...row, response: JSON.stringify(row.response) });
}

export async function deleteKeysBefore(db: Db, before: Date): Promise<void> {
  await db('idempotency_keys').where('at', '<', before).delete();
}
