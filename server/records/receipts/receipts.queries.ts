import type { ReceiptState } from '../../../core/workflow/lifecycles/gathering.ts';
import type { Reading } from '../../../core/evidence/reading/reading.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { PAGES } from './shows.ts';
import type { Accepted, FileKind, Method } from '../../platform/outside/reading/reading.types.ts';

/** Stores an accepted file once by its content hash; the same content again changes nothing. */
export async function insertFile(trx: Db, sha256: string, original: Buffer, file: Accepted): Promise<void> {
  const { type, kind, pages, likeness } = file;
  const row = { sha256, original, original_type: type, kind, pages: pages.length, likeness };
  await trx('receipt_files').insert(row).onConflict('sha256').ignore();
  await trx('receipt_pages')
    .insert(
      pages.map((p, i) => ({
        sha256,
        page: i + 1,
        view: p.bytes,
        view_type: p.type,
        width: p.width,
        height: p.height,
      })),
    )
    .onConflict(['sha256', 'page'])
    .ignore();
}

/** What a file is that is there already. */
export async function selectFileKind(db: Db, sha256: string): Promise<FileKind | undefined> {
  return (await db('receipt_files').where({ sha256 }).first('kind'))?.kind;
}

export interface NewReceipt {
  owner_id: string;
  sha256: string;
  added_at: Date;
  name: string;
  came_in: string | null;
  /** The receipts whose pages it was made of. */
  made_from?: string[];
}

/** The person's receipt with this content, made when it is not there yet. `fresh` is false when it was; one that was removed comes back. */
export async function insertReceipt(trx: Db, row: NewReceipt): Promise<{ id: bigint; fresh: boolean }> {
  const [made] = await trx('receipts').insert(row).onConflict(['owner_id', 'sha256']).ignore().returning('id');
  if (made) return { id: made.id, fresh: true };
  const at = { owner_id: row.owner_id, sha256: row.sha256 };
  const [{ id }] = await trx('receipts')
    .where(at)
    .update({ state: trx.raw(`case when state = 'removed' then 'added' else state end`) })
    .returning('id');
  return { id, fresh: false };
}

/** Notes that a file is to be read; false when that is noted, or done, already. */
export async function insertReading(trx: Db, sha256: string, at: Date): Promise<boolean> {
  const made = await trx('readings')
    .insert({ sha256, state: 'waiting', asked_at: at })
    .onConflict('sha256')
    .ignore()
    .returning('sha256');
  return made.length > 0;
}

/** How many of a person's files wait to be read. */
export async function countWaiting(db: Db, ownerId: string): Promise<number> {
  const row = await db('receipts as r')
    .join('readings as g', 'g.sha256', 'r.sha256')
    .where({ 'r.owner_id': ownerId, 'g.state': 'waiting' })
    .count({ waiting: '*' })
    .first();
  return Number(row?.waiting ?? 0);
}

/** Puts a reading back to waiting, whatever came of it. */
export async function resetReading(
  trx: Db,
  sha256: string,
  at: Date,
  told: readonly number[] | null = null,
): Promise<void> {
  const row = {
    state: 'waiting',
    asked_at: at,
    read_at: null,
    method: null,
    reading: null,
    remarks: '[]',
    turns: [],
    problem: null,
    ...(told === null ? {} : { told: [...told] }),
  };
  await trx('readings')
    .insert({ sha256, ...row })
    .onConflict('sha256')
    .merge();
}

export interface WaitingFile {
  kind: FileKind;
  type: string;
  bytes: Buffer;
  turned: number[] | null;
}
/** The file of a reading that is still to be done, or undefined when it is done or was never asked for. */
export function selectWaiting(db: Db, sha256: string): Promise<WaitingFile | undefined> {
  return db('readings as r')
    .join('receipt_files as f', 'f.sha256', 'r.sha256')
    .where({ 'r.sha256': sha256, 'r.state': 'waiting' })
    .first('f.kind', 'f.original_type as type', 'f.original as bytes', 'r.told as turned');
}

/** Files whose reading is still to be done. */
export async function selectAllWaiting(db: Db): Promise<string[]> {
  return (await db('readings').where({ state: 'waiting' }).orderBy('asked_at').select('sha256')).map((r) => r.sha256);
}

export interface DoneReading {
  method: Method;
  reading: Reading;
  remarks: string[];
  turns: number[];
}
export async function saveReading(
  db: Db,
  sha256: string,
  { method, reading, remarks, turns }: DoneReading,
  at: Date,
): Promise<void> {
  const row = {
    state: 'read',
    method,
    reading: JSON.stringify(reading),
    remarks: JSON.stringify(remarks),
    turns,
    read_at: at,
  };
  await db('readings').where({ sha256, state: 'waiting' }).update(row);
}
export async function saveFailure(db: Db, sha256: string, problem: string, at: Date): Promise<void> {
  await db('readings').where({ sha256, state: 'waiting' }).update({ state: 'failed', problem, read_at: at });
}

export interface ReceiptFile {
  ownerId: string;
  sha256: string;
  type: string;
  bytes: Buffer;
}
const fileOf = (db: Db, id: bigint) =>
  db('receipts as r')
    .join('receipt_files as f', 'f.sha256', 'r.sha256')
    .whereRaw('r.id = ?', [String(id)]);

/** The view of a page of a receipt. */
export function selectPage(db: Db, id: bigint, page: number): Promise<ReceiptFile | undefined> {
  return fileOf(db, id)
    .join('receipt_pages as p', 'p.sha256', 'f.sha256')
    .where('p.page', page)
    .first('r.owner_id as ownerId', 'f.sha256', 'p.view_type as type', 'p.view as bytes');
}
/** The untouched original of a receipt. */
export function selectOriginal(db: Db, id: bigint): Promise<ReceiptFile | undefined> {
  return fileOf(db, id).first('r.owner_id as ownerId', 'f.sha256', 'f.original_type as type', 'f.original as bytes');
}

/** A claim that uses a receipt: whose it is, and whether the receipt was submitted with it. */
export interface ReceiptUse {
  entity_id: string;
  claimant_id: string;
  preparer_id: string;
  deciders: string[];
  approvers: string[];
  code_owners: string[];
  questioned: string[];
  submitted: boolean;
}
export function selectReceiptUses(db: Db, id: bigint): Promise<ReceiptUse[]> {
  return db('lines as l')
    .join('claims as c', 'c.id', 'l.claim_id')
    .whereRaw('l.receipt_id = ?', [String(id)])
    .select(
      'c.entity_id',
      'c.claimant_id',
      'c.preparer_id',
      'c.deciders',
      'c.approvers',
      'c.code_owners',
      'c.questioned',
    )
    .select(db.raw('coalesce(l.version <= c.submitted_version, false) as submitted'));
}

/** Numbers of the claims that have lines with a file as receipt. */
export async function selectClaimsWithFile(db: Db, sha256: string): Promise<string[]> {
  return db('receipts as r')
    .join('lines as l', 'l.receipt_id', 'r.id')
    .join('claims as c', (on) => on.on('c.id', 'l.claim_id').andOn('c.version', 'l.version'))
    .where({ sha256 })
    .distinct()
    .pluck('c.number');
}

/** A page as it is shown: pixels, and quarter turns clockwise after which it stands upright. */
export interface ShownPage {
  width: number;
  height: number;
  turns: number;
}
export interface ReceiptRecord {
  id: bigint;
  revision: number;
  standing: ReceiptState;
  ownerId: string;
  sha256: string;
  name: string;
  cameIn: string | null;
  addedAt: Date;
  kind: FileKind;
  likeness: string | null;
  amount: bigint | null;
  currency: string | null;
  date: string | null;
  merchant: string | null;
  taxNumber: string | null;
  cardDigits: string | null;
  taxes: { rate: string | null; base: string | null; tax: string | null }[];
  confirmedAt: Date | null;
  state: 'waiting' | 'read' | 'failed' | null;
  method: Method | null;
  reading: Reading | null;
  remarks: string[] | null;
  problem: string | null;
  pages: ShownPage[];
  madeFrom: string[];
  usedOn: { claim: string; line: string; state: string }[];
}

const receiptRecords = (db: Db) =>
  db('receipts as r')
    .join('receipt_files as f', 'f.sha256', 'r.sha256')
    .leftJoin('readings as g', 'g.sha256', 'r.sha256')
    .select(
      'r.id',
      'r.revision',
      'r.state as standing',
      'r.owner_id as ownerId',
      'r.sha256',
      'r.name',
      'r.came_in as cameIn',
      'r.added_at as addedAt',
      'f.kind',
      'f.likeness',
      'r.amount',
      'r.currency',
      'r.date',
      'r.merchant',
      'r.tax_number as taxNumber',
      'r.card_digits as cardDigits',
      'r.taxes',
      'r.confirmed_at as confirmedAt',
      'g.state',
      'g.method',
      'g.reading',
      'g.remarks',
      'g.problem',
      db.raw('r.made_from::text[] as "madeFrom"'),
      db.raw(`${PAGES('r', 'g')} as pages`),
      db.raw(`(select coalesce(jsonb_agg(jsonb_build_object('claim', c.number, 'line', l.id, 'state', c.state) order by c.id, l.position), '[]')
        from lines l join claims c on c.id = l.claim_id and c.version = l.version
        where l.receipt_id = r.id and c.state not in ('withdrawn', 'declined')) as "usedOn"`),
    );

/** Receipts that can be put on a line; the others were taken away, or something else was made of them. */
const IN_USE = ['added', 'confirmed'] as const;
const GONE = ['removed', 'replaced'] as const;

/** How many receipts are shown at once; how many older ones there are is said. */
export const MOST_RECEIPTS = 2000;
/** A person's receipts, newest first. */
export function selectOwnReceipts(db: Db, ownerId: string, gone = false): Promise<ReceiptRecord[]> {
  return receiptRecords(db)
    .whereIn('r.state', gone ? [...GONE] : [...IN_USE])
    .where('r.owner_id', ownerId)
    .orderBy('r.id', 'desc')
    .limit(MOST_RECEIPTS);
}
/** How many receipts a person has, or has taken away. */
export async function countOwnReceipts(db: Db, ownerId: string, gone = false): Promise<number> {
  const row = await db('receipts')
    .where({ owner_id: ownerId })
    .whereIn('state', gone ? [...GONE] : [...IN_USE])
    .count({ all: '*' })
    .first();
  return Number(row?.all ?? 0);
}
/** Ids of the receipts that were made of one and are still there. */
export async function selectMadeOf(db: Db, id: bigint): Promise<{ id: bigint; madeFrom: string[] }[]> {
  return db('receipts')
    .whereRaw('made_from @> array[?::bigint]', [String(id)])
    .whereIn('state', [...IN_USE])
    .orderBy('id')
    .select('id', db.raw('made_from::text[] as "madeFrom"'));
}
/** The bytes of a receipt's file and the pictures of its pages. */
export async function selectPaper(
  db: Db,
  id: bigint,
): Promise<{ bytes: Buffer; type: string; views: Buffer[] } | undefined> {
  const file = await fileOf(db, id).first('f.sha256', 'f.original as bytes', 'f.original_type as type');
  if (!file) return undefined;
  const views = await db('receipt_pages').where({ sha256: file.sha256 }).orderBy('page').pluck('view');
  return { bytes: file.bytes, type: file.type, views };
}
/** A receipt that was not taken away. */
export function selectReceipt(db: Db, id: bigint): Promise<ReceiptRecord | undefined> {
  return receiptRecords(db)
    .whereRaw('r.id = ?', [String(id)])
    .whereIn('r.state', [...IN_USE])
    .first();
}
/** A receipt whatever became of it. */
export function selectReceiptOf(db: Db, id: bigint): Promise<ReceiptRecord | undefined> {
  return receiptRecords(db)
    .whereRaw('r.id = ?', [String(id)])
    .first();
}
/** Locks a receipt until the transaction ends; its state, or undefined when there is none. */
export async function lockReceipt(trx: Db, id: bigint): Promise<ReceiptState | undefined> {
  const row = await trx('receipts')
    .whereRaw('id = ?', [String(id)])
    .forUpdate()
    .first('state');
  return row?.state;
}

export async function updateReceipt(trx: Db, id: bigint, columns: Record<string, unknown>): Promise<void> {
  await trx('receipts')
    .whereRaw('id = ?', [String(id)])
    .update(columns);
}
