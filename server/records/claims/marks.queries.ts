import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './claims.queries.ts';

/** What a reviewer said of a comparison. `about` is the fingerprint of the comparison it was said of. */
export interface MarkRow {
  line_id: string;
  kind: string;
  mark: 'seen' | 'waived';
  about: string;
  reason: string | null;
}

export function selectMarks(db: Db, key: VersionKey): Promise<MarkRow[]> {
  return db('tie_marks')
    .where({ claim_id: key.claim_id, version: key.version })
    .select('line_id', 'kind', 'mark', 'about', 'reason');
}

export async function upsertMark(trx: Db, row: VersionKey & MarkRow & { by_id: string; at: Date }): Promise<void> {
  await trx('tie_marks').insert(row).onConflict(['claim_id', 'version', 'line_id', 'kind']).merge();
}

export async function deleteMarks(
  trx: Db,
  key: VersionKey,
  marks: readonly { line_id: string; kind: string }[],
): Promise<void> {
  if (marks.length === 0) return;
  await trx('tie_marks')
    .where({ claim_id: key.claim_id, version: key.version })
    .whereIn(['line_id', 'kind'], marks.map((m) => [m.line_id, m.kind]) as never)
    .delete();
}
