import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './versionKey.ts';

/** What was cut of the parts of a line, by the item (or '' for the line itself). */
export type CutsUnder = Record<string, { amount: string; reason: string }>;

/**
 * A line that was declined: why, by whom, and what was cut of it before. `about` is the fingerprint of the line it holds of, where
 * that was in an earlier version; null in the version in which it was declined.
 */
export interface DeclinedLine {
  line_id: string;
  reason: string;
  by_id: string;
  at: Date;
  under: CutsUnder;
  about: string | null;
}

export const selectDeclined = (db: Db, key: VersionKey): Promise<DeclinedLine[]> =>
  db('declined_lines').where({ claim_id: key.claim_id, version: key.version }).orderBy('line_id');

export async function insertDeclined(trx: Db, key: VersionKey, row: DeclinedLine): Promise<void> {
  const { claim_id, version } = key;
  await trx('declined_lines').insert({ ...row, claim_id, version, under: JSON.stringify(row.under) });
}

export async function deleteDeclined(trx: Db, key: VersionKey, ...lines: string[]): Promise<void> {
  await trx('declined_lines')
    .where({ claim_id: key.claim_id, version: key.version })
    .whereIn('line_id', lines)
    .delete();
}
