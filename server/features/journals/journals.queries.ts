import type { Coding } from '../../../core/documents/case.schema.ts';
import type { Db } from '../../platform/db/connect.ts';

export interface JournalRecord {
  id: bigint;
  number: string;
  entity_id: string;
  currency: string;
  date: string;
  period_id: string;
  kind: 'posting' | 'reversal';
  claim_id: bigint;
  claim_version: number;
  reverses: bigint | null;
  live: boolean;
  reason: string | null;
  posted_by: string;
  posted_at: Date;
}
export interface JournalRowRecord {
  position: number;
  account: string;
  coding: Coding;
  debit: bigint;
  credit: bigint;
  currency: string;
  amount: bigint;
  line_id: string | null;
  item_id: string | null;
  share: number | null;
  tax_code: string | null;
  text: string;
}

/** The next number of an entity's journals, without gaps: a transaction that fails gives its number back. */
export async function nextJournalNumber(trx: Db, entityId: string): Promise<string> {
  const [row] = await trx('journal_numbers')
    .insert({ entity_id: entityId, last: 1 })
    .onConflict('entity_id')
    .merge({ last: trx.raw('journal_numbers.last + 1') })
    .returning('last');
  return `${entityId}-${String(row.last).padStart(6, '0')}`;
}

export async function insertJournal(
  trx: Db,
  journal: Omit<JournalRecord, 'id'> & { document: unknown },
  rows: readonly JournalRowRecord[],
): Promise<bigint> {
  const document = journal.document === null ? null : JSON.stringify(journal.document);
  const [{ id }] = await trx('journals').insert({ ...journal, document }, 'id');
  await trx.batchInsert(
    'journal_rows',
    rows.map((row) => ({ ...row, journal_id: id, coding: JSON.stringify(row.coding) })),
    500,
  );
  return id;
}

export async function endPosting(trx: Db, id: bigint): Promise<void> {
  await trx('journals').where({ id }).update({ live: false });
}

export async function lockAdvances(trx: Db, ids: readonly string[]): Promise<void> {
  for (const id of [...ids].sort()) await trx.raw('select lock_advance(?)', [id]);
}

export interface Movement {
  advance_id: string;
  kind: 'accounted for' | 'reversed';
  journal_id: bigint;
  part: bigint;
  ledger_part: bigint;
  at: Date;
}

export async function insertMovements(trx: Db, movements: readonly Movement[]): Promise<void> {
  if (movements.length > 0) await trx('advance_movements').insert([...movements]);
}

export const selectMovements = (db: Db, journalId: bigint): Promise<Movement[]> =>
  db('advance_movements').where({ journal_id: journalId });

export const selectJournal = (db: Db, number: string): Promise<JournalRecord | undefined> =>
  db('journals').where({ number }).first();

export async function selectClaimNumber(db: Db, claimId: bigint): Promise<string> {
  return (await db('claims').where({ id: claimId }).first('number')).number;
}

export const selectRows = (db: Db, journalId: bigint): Promise<JournalRowRecord[]> =>
  db('journal_rows as r').where({ journal_id: journalId }).orderBy('position');

export interface JournalListRow {
  id: bigint;
  number: string;
  entity: string;
  currency: string;
  date: string;
  kind: string;
  live: boolean;
  claim: string;
  claimVersion: number;
  claimant: string;
  purpose: string;
  reason: string | null;
  postedBy: string;
  postedAt: Date;
  reverses: string | null;
  reversedBy: string | null;
  total: bigint;
}

const journals = (db: Db) =>
  db('journals as j')
    .join('claims as c', 'c.id', 'j.claim_id')
    .join('people as p', 'p.id', 'c.claimant_id')
    .join('people as u', 'u.id', 'j.posted_by')
    .leftJoin('journals as o', 'o.id', 'j.reverses')
    .leftJoin('journals as r', 'r.reverses', 'j.id')
    .select(
      'j.id',
      'j.number',
      'j.entity_id as entity',
      'j.currency',
      'j.date',
      'j.kind',
      'j.live',
      'c.number as claim',
      'j.claim_version as claimVersion',
      'p.name as claimant',
      'c.purpose',
      'j.reason',
      'u.name as postedBy',
      'j.posted_at as postedAt',
      'o.number as reverses',
      'r.number as reversedBy',
    )
    .select(db.raw('(select sum(debit) from journal_rows x where x.journal_id = j.id)::bigint as total'));

const PAGE = 50;

/** Journals, newest first; `before` is the id of the last one seen. */
export async function selectJournalPage(db: Db, before: bigint | null): Promise<JournalListRow[]> {
  const query = journals(db).orderBy('j.id', 'desc').limit(PAGE);
  if (before !== null) query.whereRaw('j.id < ?', [String(before)]);
  return query;
}

export const selectJournalHeader = (db: Db, number: string): Promise<JournalListRow | undefined> =>
  journals(db).where('j.number', number).first();

/** What each journal row came from: its line and that line's receipt. */
export function selectRowOrigins(
  db: Db,
  journalId: bigint,
): Promise<
  { position: number; merchant: string | null; category: string | null; date: string; receipt: bigint | null }[]
> {
  return db('journal_rows as r')
    .join('journals as j', 'j.id', 'r.journal_id')
    .join('lines as l', (on) =>
      on.on('l.claim_id', 'j.claim_id').andOn('l.version', 'j.claim_version').andOn('l.id', 'r.line_id'),
    )
    .where({ journal_id: journalId })
    .select('r.position', 'l.merchant', 'l.category', 'l.date', 'l.receipt_id as receipt');
}

export interface ExportRow extends JournalRowRecord {
  journal: string;
  date: string;
  kind: string;
  entity: string;
  ledger_currency: string;
  claim: string;
}

/** Every row of every journal of an entity between two dates, in the order of posting. */
export function selectExport(
  db: Db,
  filter: { entity: string | null; from: string | null; to: string | null },
): Promise<ExportRow[]> {
  const query = db('journal_rows as r')
    .join('journals as j', 'j.id', 'r.journal_id')
    .join('claims as c', 'c.id', 'j.claim_id')
    .orderBy(['j.id', 'r.position'])
    .select(
      'j.number as journal',
      'j.date',
      'j.kind',
      'j.entity_id as entity',
      'j.currency as ledger_currency',
      'c.number as claim',
      'r.*',
    );
  if (filter.entity) query.where('j.entity_id', filter.entity);
  if (filter.from) query.where('j.date', '>=', filter.from);
  if (filter.to) query.where('j.date', '<=', filter.to);
  return query;
}

/** Claims waiting to be posted, oldest first. */
export function selectCleared(db: Db): Promise<
  {
    number: string;
    revision: number;
    entity: string;
    claimant: string;
    purpose: string;
    clearedBy: string;
    clearedById: string;
    claimantId: string;
  }[]
> {
  return db('claims as c')
    .join('people as p', 'p.id', 'c.claimant_id')
    .join('people as r', 'r.id', 'c.cleared_by')
    .where('c.state', 'cleared')
    .orderBy('c.id')
    .select(
      'c.number',
      'c.revision',
      'c.entity_id as entity',
      'p.name as claimant',
      'c.purpose',
      'r.name as clearedBy',
      'r.id as clearedById',
      'p.id as claimantId',
    );
}

export interface KeyRow {
  request_hash: string;
  response: unknown;
}

export const selectKey = (db: Db, person_id: string, act: string, key: string): Promise<KeyRow | undefined> =>
  db('idempotency_keys').where({ person_id, act, key }).first();

export async function insertKey(
  trx: Db,
  row: KeyRow & { person_id: string; act: string; key: string; at: Date },
): Promise<void> {
  await trx('idempotency_keys').insert({ ...row, response: JSON.stringify(row.response) });
}

export async function readSetting(db: Db, key: string): Promise<unknown> {
  return (await db('settings').where({ key }).first())?.value;
}
