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

/** Writes the answer to a query that went out with a claim's last version before this one; its line, null when there is no such query. */
export async function updateAnswer(
  trx: Db,
  { claim_id, version }: VersionKey,
  { id, ...answer }: { id: bigint; answer: string; answered_by: string; answered_at: Date },
): Promise<string | null> {
  const [row] = await trx('queries')
    .where({ id, claim_id, version: version - 1 })
    .whereNotNull('sent_at')
    .update(answer)
    .returning('line_id');
  return row?.line_id ?? null;
}
