import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from '../../records/claims/claims.queries.ts';

export async function insertQuery(
  trx: Db,
  row: VersionKey & { line_id: string; kind: string | null; text: string; by_id: string; at: Date },
): Promise<void> {
  await trx('queries').insert(row);
}

/** Sends every query of a version that was not sent yet; those sent now, in the order they were asked. */
export async function sendQueries(trx: Db, key: VersionKey, at: Date): Promise<{ line: string; text: string }[]> {
  const rows = await trx('queries')
    .where({ claim_id: key.claim_id, version: key.version })
    .whereNull('sent_at')
    .update({ sent_at: at })
    .returning(['id', 'line_id as line', 'text']);
  return rows.sort((a, b) => (a.id < b.id ? -1 : 1)).map(({ line, text }) => ({ line, text }));
}
