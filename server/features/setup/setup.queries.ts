import { fromMinor, readAmount } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import { hasValidity, isDated, type Descriptor } from './descriptors.ts';

/** A row of master data: its fields as the contract has them, and from when to when it holds. */
export interface MasterRow {
  row: Record<string, unknown>;
  validFrom: string | null;
  validTo: string | null;
}

/** What the column codecs need to know: the ledger currency of each entity. */
export type Ledgers = ReadonlyMap<string, string>;
export async function selectLedgers(db: Db): Promise<Ledgers> {
  const rows = await db('entities').select('id', 'currency');
  return new Map(rows.map((r) => [r.id, r.currency]));
}

/** Holds off others who change the same key until the transaction ends. */
export async function lockKey(trx: Db, name: string): Promise<void> {
  await trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 1))', [name]);
}

/** How often each key of a kind was changed, by the history. */
export async function selectRevisions(db: Db, kind: string): Promise<Map<string, number>> {
  const rows = await db('events')
    .where('record_kind', 'setting')
    .whereLike('record_id', `${kind}/%`)
    .groupBy('record_id')
    .select('record_id', db.raw('max(seq)::int as revision'));
  return new Map(rows.map((r) => [r.record_id, r.revision]));
}
export async function selectRevision(db: Db, recordId: string): Promise<number> {
  const row = await db('events').where({ record_kind: 'setting', record_id: recordId }).max('seq as revision').first();
  return row?.revision ?? 0;
}

/** Every row of a kind in the order of its key, then of time. */
export async function selectMasterRows(db: Db, descriptor: Descriptor, ledgers: Ledgers): Promise<MasterRow[]> {
  const { table, columns, key } = descriptor;
  const order = key.map((field) => columns[field]!.column);
  const query = db(table).orderBy(order);
  if (hasValidity(descriptor)) query.orderByRaw('valid_from nulls first');
  return (await query).map((row: Record<string, unknown>) => readRow(descriptor, row, ledgers));
}

/** The rows of one key in the order of time. */
export async function selectKeyRows(db: Db, descriptor: Descriptor, key: Key, ledgers: Ledgers): Promise<MasterRow[]> {
  const query = atKey(db, descriptor, key);
  if (hasValidity(descriptor)) query.orderByRaw('valid_from nulls first');
  return (await query).map((row: Record<string, unknown>) => readRow(descriptor, row, ledgers));
}

/** The values of a key's fields, in their order; null stands for all entities or categories. */
export type Key = readonly (string | null)[];

function atKey(db: Db, { table, columns, key: fields }: Descriptor, key: Key) {
  const query = db(table);
  for (const [i, field] of fields.entries()) {
    const { column } = columns[field]!;
    if (key[i] === null) query.whereNull(column);
    else query.where(column, key[i]!);
  }
  return query;
}

function readRow({ columns }: Descriptor, row: Record<string, unknown>, ledgers: Ledgers): MasterRow {
  const entries = Object.entries(columns).map(([field, { column, codec }]) => {
    const value = row[column] ?? null;
    return [field, codec === 'ledger amount' ? fromMinor(value as bigint, ledgerOf(row, ledgers)) : value];
  });
  return {
    row: Object.fromEntries(entries),
    validFrom: (row.valid_from as string | null) ?? null,
    validTo: (row.valid_to as string | null) ?? null,
  };
}

const ledgerOf = (row: Record<string, unknown>, ledgers: Ledgers): string => ledgers.get(row.entity_id as string)!;

/** A field that cannot be stored as its column needs it. */
export class UnstorableField extends Error {
  readonly field: string;
  constructor(field: string) {
    super(field);
    this.field = field;
  }
}

function writeRow(
  { columns }: Descriptor,
  row: Record<string, unknown>,
  ledgers: Ledgers,
  fields: readonly string[] = Object.keys(columns),
): Record<string, unknown> {
  const entries = fields.map((field) => {
    const { column, codec } = columns[field]!;
    const value = row[field] ?? null;
    if (codec === 'json') return [column, value === null ? null : JSON.stringify(value)];
    if (codec === 'plain') return [column, value];
    const currency = ledgers.get(row.entity as string);
    const minor = currency === undefined ? null : readAmount(value as string, currency);
    if (minor === null) throw new UnstorableField(field);
    return [column, minor];
  });
  return Object.fromEntries(entries);
}

export async function insertMasterRow(
  trx: Db,
  descriptor: Descriptor,
  { row, validFrom, validTo }: MasterRow,
  ledgers: Ledgers,
): Promise<void> {
  const validity = hasValidity(descriptor) ? { valid_from: validFrom, valid_to: validTo } : {};
  const state = descriptor.table === 'periods' ? { state: 'open' } : {};
  await trx(descriptor.table).insert({ ...writeRow(descriptor, row, ledgers), ...validity, ...state });
}

/** Changes the fields of a single row that may change. */
export async function updateMasterRow(
  trx: Db,
  descriptor: Descriptor,
  key: Key,
  row: Record<string, unknown>,
  ledgers: Ledgers,
): Promise<void> {
  const { validity } = descriptor;
  if (validity === 'dated' || validity.changes.length === 0) return;
  await atKey(trx, descriptor, key).update(writeRow(descriptor, row, ledgers, validity.changes));
}

/** Ends the row of a key that holds on a day. */
export async function endMasterRow(trx: Db, descriptor: Descriptor, key: Key, validTo: string): Promise<void> {
  const query = atKey(trx, descriptor, key).whereRaw(`coalesce(valid_to, 'infinity') > ?`, [validTo]);
  if (isDated(descriptor)) query.whereRaw(`coalesce(valid_from, '-infinity') <= ?`, [validTo]);
  await query.update({ valid_to: validTo });
}

/** The budgets of a key, by the ids claims remember them by. */
export const selectBudgetIds = (db: Db, descriptor: Descriptor, key: Key): Promise<bigint[]> =>
  atKey(db, descriptor, key).pluck('id');
