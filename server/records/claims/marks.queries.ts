import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './versionKey.ts';

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

/** The same comparison came to other figures by the rates of another day. */
export async function updateMarkAbout(trx: Db, { claim_id, version }: VersionKey, mark: MarkRow): Promise<void> {
  const { line_id, kind, about } = mark;
  await trx('tie_marks').where({ claim_id, version, line_id, kind }).update({ about });
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

/** Copies marks of an earlier version that are about one of these comparisons to a version; who said it and when stay. */
export async function copyMarks(
  trx: Db,
  { claim_id, version }: VersionKey,
  from: number,
  about: readonly { line: string; kind: string; about: string }[],
): Promise<void> {
  await trx.raw(
    `insert into tie_marks (claim_id, version, line_id, kind, mark, about, reason, by_id, at)
     select m.claim_id, ?, m.line_id, m.kind, m.mark, m.about, m.reason, m.by_id, m.at from tie_marks m
       join unnest(?::text[], ?::text[], ?::text[]) as t (line, kind, about)
         on t.line = m.line_id and t.kind = m.kind and t.about = m.about
       where m.claim_id = ? and m.version = ?
     on conflict do nothing`,
    [
      version,
      about.map((t) => t.line),
      about.map((t) => t.kind),
      about.map((t) => t.about),
      String(claim_id),
      from,
    ] as never,
  );
}
