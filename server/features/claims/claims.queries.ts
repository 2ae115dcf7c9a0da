import type { Coding, Line, Plan } from '../../../core/documents/case.schema.ts';
import type { Finding } from '../../../core/documents/finding.ts';
import type { Db } from '../../platform/db/connect.ts';

export type ClaimState =
  | 'draft'
  | 'with approver'
  | 'in review'
  | 'cleared'
  | 'posted'
  | 'paid'
  | 'returned'
  | 'declined'
  | 'withdrawn'
  | 'reversed'
  | 'part paid'
  | 'payment rejected';

export interface ClaimRow {
  id: bigint;
  number: string;
  version: number;
  revision: number;
  entity_id: string;
  claimant_id: string;
  preparer_id: string;
  approver_id: string | null;
  currency: string;
  state: ClaimState;
  purpose: string;
  trip_from: string | null;
  trip_to: string | null;
  submitted_on: string | null;
  coding: Coding;
  plan: Plan | null;
  cleared_by: string | null;
  hold_reason: string | null;
  hold_until: string | null;
}
export interface LineRow {
  id: string;
  date: string;
  category: string | null;
  nights: number | null;
  attendees: Line['attendees'];
  fields: Record<string, string>;
  paid_by: 'own' | 'card' | 'central';
  card: string | null;
  amount: bigint;
  currency: string;
  country: string | null;
  merchant: string | null;
  description: string | null;
  personal: boolean;
  rate_kind: 'reference' | 'card' | 'own';
  rate_value: string | null;
  settled_amount: bigint | null;
  settled_currency: string | null;
  receipt_id: bigint | null;
  charge_id: bigint | null;
  coding: Coding;
  split_by: 'percent' | 'amount' | 'weight' | 'equal' | null;
}
export interface ItemRow {
  line_id: string;
  id: string;
  category: string | null;
  amount: bigint;
  description: string | null;
  personal: boolean;
  coding: Coding;
  split_by: LineRow['split_by'];
}
export interface TaxEntryRow {
  line_id: string;
  item_id: string | null;
  code: string;
  gross: bigint | null;
  tax: bigint | null;
}
export interface ShareRow {
  line_id: string;
  item_id: string | null;
  coding: Coding;
  value: string | null;
}
export interface MarkRow {
  line_id: string;
  kind: string;
  mark: 'seen' | 'waived';
  reason: string | null;
  by: string;
  at: Date;
}
/** Which version of which claim. */
export interface VersionKey {
  claim_id: bigint;
  version: number;
}

export const selectClaim = (db: Db, number: string): Promise<ClaimRow | undefined> =>
  db<ClaimRow>('claims').where({ number }).first();

/** The claim, locked until the transaction ends: every act on a claim begins with it, so acts follow one another. */
export const lockClaim = (trx: Db, number: string): Promise<ClaimRow | undefined> =>
  trx<ClaimRow>('claims').where({ number }).forUpdate().first();

export const selectLines = (db: Db, key: VersionKey): Promise<LineRow[]> => db('lines').where(key).orderBy('position');
export const selectItems = (db: Db, key: VersionKey): Promise<ItemRow[]> =>
  db('items').where(key).orderBy(['line_id', 'position']);
export const selectTaxEntries = (db: Db, key: VersionKey): Promise<TaxEntryRow[]> =>
  db('tax_entries').where(key).orderBy('position');
export const selectShares = (db: Db, key: VersionKey): Promise<ShareRow[]> =>
  db('shares').where(key).orderBy('position');

export function selectWantedAdvances(db: Db, key: VersionKey): Promise<{ advance_id: string; up_to: bigint | null }[]> {
  return db('claim_advances').where(key).orderBy('position').select('advance_id', 'up_to');
}

export function selectMarks(db: Db, key: VersionKey): Promise<MarkRow[]> {
  return db('tie_marks as m')
    .join('people as p', 'p.id', 'm.by_id')
    .where(key)
    .select('m.line_id', 'm.kind', 'm.mark', 'm.reason', 'p.name as by', 'm.at');
}

export async function upsertMark(
  trx: Db,
  row: VersionKey & { line_id: string; kind: string; mark: string; reason: string | null; by_id: string; at: Date },
) {
  await trx('tie_marks').insert(row).onConflict(['claim_id', 'version', 'line_id', 'kind']).merge();
}

export async function deleteMarks(
  trx: Db,
  key: VersionKey & { line_id: string },
  kinds: readonly string[],
): Promise<void> {
  await trx('tie_marks').where(key).whereIn('kind', kinds).delete();
}

export function selectQueries(
  db: Db,
  key: VersionKey,
): Promise<{ line: string; kind: string | null; text: string; by: string; at: Date }[]> {
  return db('queries as q')
    .join('people as p', 'p.id', 'q.by_id')
    .where(key)
    .orderBy('q.id')
    .select('q.line_id as line', 'q.kind', 'q.text', 'p.name as by', 'q.at');
}

export async function insertQuery(
  trx: Db,
  row: VersionKey & { line_id: string; kind: string | null; text: string; by_id: string; at: Date },
): Promise<void> {
  await trx('queries').insert(row);
}

export async function updateClaim(
  trx: Db,
  id: bigint,
  changes: Partial<ClaimRow> & Record<string, unknown>,
): Promise<void> {
  await trx('claims').where({ id }).update(changes);
}

export interface StoredAssessment {
  revision: number;
  document: unknown;
  result: unknown;
}

export async function upsertAssessment(
  trx: Db,
  key: VersionKey,
  row: StoredAssessment,
  findings: readonly Finding[],
): Promise<void> {
  const stored = {
    ...key,
    revision: row.revision,
    document: JSON.stringify(row.document),
    result: JSON.stringify(row.result),
  };
  await trx('assessments').insert(stored).onConflict(['claim_id', 'version']).merge();
  await trx('findings').where(key).delete();
  const rows = findings.map(({ line, item, ...finding }, position) => ({
    ...key,
    position,
    line_id: line,
    item_id: item,
    ...finding,
  }));
  if (rows.length > 0) await trx('findings').insert(rows);
}

/** One line as it is stored: its row, items, tax entries and shares. */
export interface LineRecord {
  line: Partial<LineRow> & { id: string };
  items: Omit<ItemRow, 'line_id'>[];
  taxEntries: Omit<TaxEntryRow, 'line_id'>[];
  shares: Omit<ShareRow, 'line_id'>[];
}

/** Replaces the parts of one line; the line's own row is updated, so that what refers to it stays. */
export async function replaceLine(trx: Db, key: VersionKey, record: LineRecord): Promise<void> {
  const { id, coding, ...columns } = record.line;
  const at = { ...key, line_id: id };
  await trx('tax_entries').where(at).delete();
  await trx('shares').where(at).delete();
  await trx('items').where(at).delete();
  await trx('lines')
    .where({ ...key, id })
    .update({ ...columns, ...(coding ? { coding: JSON.stringify(coding) } : {}) });
  await insertParts(trx, key, record);
}

export async function insertLine(trx: Db, key: VersionKey, position: number, record: LineRecord): Promise<void> {
  await trx('lines').insert({ ...key, position, ...record.line });
  await insertParts(trx, key, record);
}

async function insertParts(trx: Db, key: VersionKey, { line, items, taxEntries, shares }: LineRecord): Promise<void> {
  const at = { ...key, line_id: line.id };
  if (items.length) await trx('items').insert(items.map((row, position) => ({ ...at, position, ...row })));
  if (taxEntries.length)
    await trx('tax_entries').insert(taxEntries.map((row, position) => ({ ...at, position, ...row })));
  if (shares.length) await trx('shares').insert(shares.map((row, position) => ({ ...at, position, ...row })));
}
