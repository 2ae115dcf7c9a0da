import type { Db } from '../../platform/db/connect.ts';
import type { ShownPage } from '../receipts/receipts.queries.ts';

/** To which record a file belongs; of a claim to a version. */
export type AttachedTo =
  | { claim_id: bigint; version: number }
  | { plan_id: bigint }
  | { booking_id: bigint }
  | { advance_id: string }
  | { payment_id: bigint }
  | { query_id: bigint };

const columnsOf = (to: AttachedTo): Record<string, unknown> =>
  'version' in to ? { claim_id: to.claim_id, added_in: to.version } : { ...to };

/** The attachments a record has; of a claim those of its version. */
function attachedTo(db: Db, to: AttachedTo) {
  if (!('version' in to)) return db('attachments as t').where(to);
  return db('attachments as t')
    .whereRaw('t.claim_id = ?', [String(to.claim_id)])
    .where('t.added_in', '<=', to.version)
    .where((still) => still.whereNull('t.removed_in').orWhere('t.removed_in', '>', to.version));
}

export interface NewAttachment {
  sha256: string;
  name: string;
  by_id: string;
  at: Date;
}
export async function insertAttachment(trx: Db, to: AttachedTo, row: NewAttachment): Promise<void> {
  await trx('attachments').insert({ ...row, ...columnsOf(to) });
}
export const countAttachments = async (db: Db, to: AttachedTo): Promise<number> =>
  Number((await attachedTo(db, to).count({ all: '*' }).first())?.all ?? 0);

/** Takes an attachment off; a version that went out with it keeps it. False when the record has none of that id. */
export async function removeAttachment(trx: Db, to: AttachedTo, id: bigint): Promise<boolean> {
  const found = await attachedTo(trx, to)
    .whereRaw('t.id = ?', [String(id)])
    .first('t.added_in');
  if (!found) return false;
  const row = trx('attachments').whereRaw('id = ?', [String(id)]);
  if ('version' in to && found.added_in < to.version) await row.update({ removed_in: to.version });
  else await row.delete();
  return true;
}

/** An attachment as it is listed and looked at. */
export interface ShownAttachment {
  id: string;
  name: string;
  pages: ShownPage[];
  by: string;
  at: Date;
}
export async function selectAttachments(db: Db, to: AttachedTo): Promise<ShownAttachment[]> {
  const rows = await attachedTo(db, to)
    .join('people as p', 'p.id', 't.by_id')
    .orderBy('t.id')
    .select('t.id', 't.name', 't.at', 'p.name as by')
    .select(
      db.raw(`(select jsonb_agg(jsonb_build_object('width', g.width, 'height', g.height, 'turns', 0) order by g.page)
        from receipt_pages g where g.sha256 = t.sha256) as pages`),
    );
  return rows.map(({ id, name, pages, by, at }) => ({ id: String(id), name, pages, by, at }));
}
/** Names and contents of a record's attachments, by which a version is known again. */
export const selectAttached = (db: Db, to: AttachedTo): Promise<{ name: string; sha256: string }[]> =>
  attachedTo(db, to).orderBy('t.id').select('t.name', 't.sha256');

/** Where an attachment belongs, with the claim's versions it is in. */
export interface AttachmentPlace {
  claim: string | null;
  plan: string | null;
  advance: string | null;
  /** Of an answer: who was asked. */
  asks: 'claimant' | 'approver' | null;
  /** It proves a payout or a return. */
  proves: boolean;
  addedIn: number;
  sha256: string;
}
export function selectAttachmentPlace(db: Db, id: bigint): Promise<AttachmentPlace | undefined> {
  return db('attachments as t')
    .leftJoin('plan_bookings as b', 'b.id', 't.booking_id')
    .leftJoin('queries as q', 'q.id', 't.query_id')
    .joinRaw('left join claims as c on c.id = coalesce(t.claim_id, q.claim_id)')
    .leftJoin('plans as l', (on) => on.on('l.id', 't.plan_id').orOn('l.id', 'b.plan_id'))
    .leftJoin('advance_payments as y', 'y.id', 't.payment_id')
    .whereRaw('t.id = ?', [String(id)])
    .select(db.raw('coalesce(t.advance_id, y.advance_id) as advance, t.payment_id is not null as proves'))
    .first('c.number as claim', 'l.number as plan', 't.added_in as addedIn', 't.sha256', 'q.asks');
}
export function selectAttachmentPage(
  db: Db,
  sha256: string,
  page: number,
): Promise<{ type: string; bytes: Buffer } | undefined> {
  return db('receipt_pages').where({ sha256, page }).first('view_type as type', 'view as bytes');
}
