import type { Db } from '../../db/connect.ts';
import type { Picture } from './readPicture.ts';

/** Stores the file once by its content hash; the same content again changes nothing. */
export async function insertFile(
  trx: Db,
  { sha256, original, originalType, view, viewType, width, height }: Picture,
): Promise<void> {
  await trx('receipt_files')
    .insert({ sha256, original, original_type: originalType, view, view_type: viewType, width, height })
    .onConflict('sha256')
    .ignore();
}

/** The person's receipt with this content, made when it is not there yet. `fresh` is false when it was. */
export async function insertReceipt(
  trx: Db,
  row: { owner_id: string; sha256: string; added_at: Date },
): Promise<{ id: bigint; fresh: boolean }> {
  const [made] = await trx('receipts').insert(row).onConflict(['owner_id', 'sha256']).ignore().returning('id');
  if (made) return { id: made.id, fresh: true };
  const { id } = await trx('receipts').where({ owner_id: row.owner_id, sha256: row.sha256 }).first('id');
  return { id, fresh: false };
}

export interface ReceiptFile {
  ownerId: string;
  sha256: string;
  type: string;
  bytes: Buffer;
}

/** The view, or the untouched original, of a receipt. */
export function selectFile(db: Db, id: bigint, which: 'view' | 'original'): Promise<ReceiptFile | undefined> {
  return db('receipts as r')
    .join('receipt_files as f', 'f.sha256', 'r.sha256')
    .whereRaw('r.id = ?', [String(id)])
    .first('r.owner_id as ownerId', 'f.sha256', `f.${which}_type as type`, `f.${which} as bytes`);
}

/** The claimants, preparers and approvers of the claims that use a receipt. */
export async function selectPeopleAround(db: Db, id: bigint): Promise<string[]> {
  const rows = await db('lines as l')
    .join('claims as c', 'c.id', 'l.claim_id')
    .whereRaw('l.receipt_id = ?', [String(id)])
    .select('c.claimant_id', 'c.preparer_id', 'c.approver_id');
  return rows.flatMap((row) => Object.values(row) as string[]);
}
