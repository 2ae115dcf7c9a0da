import { ENDED } from '../../../core/workflow/lifecycles/claim.ts';
import type { Coding, Line } from '../../../core/documents/case.schema.ts';
import type { Db } from '../../platform/db/connect.ts';
import { insertMany } from '../../platform/db/insertMany.ts';
import type { VersionKey } from './versionKey.ts';

export interface LineRow {
  position: number;
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
  split_unit: string | null;
  quantity: Line['quantity'];
  estimate: string | null;
  journey: Line['journey'];
  stay: Line['stay'];
  rebill: Line['rebill'];
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
  split_unit: string | null;
  quantity: Line['quantity'];
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
/** A version, or one line of it. */
type Part = VersionKey & { line?: string | undefined };
const rowsOf = ({ claim_id, version, line }: Part, id: 'id' | 'line_id') => ({
  claim_id,
  version,
  ...(line === undefined ? {} : { [id]: line }),
});

export const selectLines = (db: Db, part: Part): Promise<LineRow[]> =>
  db('lines').where(rowsOf(part, 'id')).orderBy('position');
export const selectItems = (db: Db, part: Part): Promise<ItemRow[]> =>
  db('items').where(rowsOf(part, 'line_id')).orderBy(['line_id', 'position']);
export const selectTaxEntries = (db: Db, part: Part): Promise<TaxEntryRow[]> =>
  db('tax_entries').where(rowsOf(part, 'line_id')).orderBy('position');
export const selectShares = (db: Db, part: Part): Promise<ShareRow[]> =>
  db('shares').where(rowsOf(part, 'line_id')).orderBy('position');

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
  const at = { claim: String(key.claim_id), version: key.version, line: id };
  const where = 'claim_id = :claim and version = :version and line_id = :line';
  await trx.raw(
    `with taxes as (delete from tax_entries where ${where}), parts as (delete from shares where ${where}) delete from items where ${where}`,
    at,
  );
  await trx('lines')
    .where({ ...key, id })
    .update({ ...withStay(columns), ...(coding ? { coding: JSON.stringify(coding) } : {}) });
  await insertParts(trx, key, [record]);
}

/** The days of a stay as JSON: an array would be taken for one of the database's own. */
const withStay = <Columns extends Pick<LineRecord['line'], 'stay'>>(columns: Columns) => ({
  ...columns,
  ...(columns.stay ? { stay: JSON.stringify(columns.stay) } : {}),
});

/** Puts lines behind those that are there, from a position on. */
export async function insertLines(
  trx: Db,
  key: VersionKey,
  from: number,
  records: readonly LineRecord[],
): Promise<void> {
  const lines = records.map(({ line }, i) => ({ ...key, position: from + i, ...withStay(line) }));
  await insertMany(trx, 'lines', lines);
  await insertParts(trx, key, records);
}

async function insertParts(trx: Db, key: VersionKey, records: readonly LineRecord[]): Promise<void> {
  const rows = (part: 'items' | 'taxEntries' | 'shares') =>
    records.flatMap(({ line, [part]: of }) =>
      of.map((row, position) => ({ ...key, line_id: line.id, position, ...row })),
    );
  for (const [table, part] of PARTS) await insertMany(trx, table, rows(part));
}
const PARTS = [
  ['items', 'items'],
  ['tax_entries', 'taxEntries'],
  ['shares', 'shares'],
] as const;

export async function updateLine(
  trx: Db,
  { claim_id, version, id }: VersionKey & { id: string },
  columns: Record<string, unknown>,
): Promise<void> {
  await trx('lines').where({ claim_id, version, id }).update(columns);
}

/**
 * Gives a line another amount. A figure never changes currency by keeping its digits: in another currency the line loses its
 * taxes, its items (their first category becomes its own), the amounts of a split, and a rate that was told for it.
 */
export async function restateLine(
  trx: Db,
  key: VersionKey & { id: string },
  { amount, currency }: { amount: bigint; currency: string },
): Promise<void> {
  const { claim_id, version, id } = key;
  const line = await trx('lines').where({ claim_id, version, id }).first('currency', 'category', 'split_by');
  if (line && line.currency !== currency) {
    const parts = { claim_id, version, line_id: id };
    const [first] = await trx('items')
      .where(parts)
      .whereNotNull('category')
      .orderBy('position')
      .limit(1)
      .select('category');
    await trx('tax_entries').where(parts).delete();
    const shares = trx('shares').where(parts);
    await (line.split_by === 'amount' ? shares : shares.whereNotNull('item_id')).delete();
    await trx('items').where(parts).delete();
    await updateLine(trx, key, {
      category: line.category ?? first?.category ?? null,
      split_by: line.split_by === 'amount' ? null : line.split_by,
      ...NO_RATE,
    });
  }
  await updateLine(trx, key, { amount, currency });
}
const NO_RATE = { rate_kind: 'reference', rate_value: null, settled_amount: null, settled_currency: null };

/** Takes off a line what is said of its amount: its taxes, and its shares where they are amounts. */
export async function clearParts(trx: Db, { claim_id, version, id }: VersionKey & { id: string }): Promise<void> {
  const of = { claim_id, version, line_id: id };
  await trx('tax_entries').where(of).delete();
  const byAmount = await trx('lines').where({ claim_id, version, id, split_by: 'amount' }).update({ split_by: null });
  if (byAmount > 0) await trx('shares').where(of).delete();
}

/** Takes a line off a version that is in preparation; nothing else refers to it. */
export async function deleteLine(trx: Db, key: VersionKey & { id: string }): Promise<void> {
  await trx('lines').where(key).delete();
}

/** A claim that counts and has a receipt or charge of this version on a line of its own; undefined where there is none. */
export const selectUsedElsewhere = (db: Db, key: VersionKey): Promise<{ claim: string; state: string } | undefined> =>
  db('lines as l')
    .join('lines as o', (on) =>
      on
        .on('o.claim_id', '<>', 'l.claim_id')
        .andOn((same) => same.on('o.receipt_id', 'l.receipt_id').orOn('o.charge_id', 'l.charge_id')),
    )
    .join('claims as c', (on) => on.on('c.id', 'o.claim_id').andOn('c.version', 'o.version'))
    .where({ 'l.claim_id': String(key.claim_id), 'l.version': key.version })
    .whereNotIn('c.state', [...ENDED])
    .first('c.number as claim', 'c.state');
