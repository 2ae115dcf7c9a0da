import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './versionKey.ts';

/** Columns that hold documents, which are written as JSON again. */
const DOCUMENTS = ['coding', 'fields', 'attendees', 'rebill', 'quantity', 'journey', 'stay', 'before_pair'] as const;

/**
 * Adds a line like another one of its claim, with its shares, but for some columns. Taxes and items are not taken along, nor
 * what its amount was computed from, since the copy has another one.
 */
export async function copyLine(
  trx: Db,
  { claim_id, version, id }: VersionKey & { id: string },
  changes: Record<string, unknown> & { id: string },
): Promise<void> {
  const row = await trx('lines').where({ claim_id, version, id }).first();
  const kept = { ...row, quantity: null, journey: null, stay: null };
  const written = DOCUMENTS.map((field) => [field, kept[field] === null ? null : JSON.stringify(kept[field])] as const);
  const split_by = row.split_by === 'amount' ? null : row.split_by;
  await trx('lines').insert({ ...kept, ...Object.fromEntries(written), split_by, ...changes });
  if (split_by === null) return;
  await trx.raw(
    `insert into shares (claim_id, version, line_id, item_id, position, coding, value)
     select claim_id, version, ?, item_id, position, coding, value from shares where claim_id = ? and version = ? and line_id = ? and item_id is null`,
    [changes.id, String(claim_id), version, id],
  );
}
