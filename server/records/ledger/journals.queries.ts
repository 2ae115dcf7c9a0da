import type { Db } from '../../platform/db/connect.ts';
import type { JournalRecord, JournalRowRecord, MovementRecord, Source, TaxRowRecord } from './ledger.types.ts';

/** The next number of an entity's journals, without gaps: a transaction that fails gives its number back. */
export async function nextJournalNumber(trx: Db, entityId: string): Promise<string> {
  const { rows } = await trx.raw('select next_journal_number(?) as number', [entityId]);
  return rows[0].number;
}

export interface JournalHead extends Omit<JournalRecord, 'id' | 'hash'> {
  /** What it was computed from, for a journal of a claim: the case without the shared part of its book, and the assessment. */
  document: unknown;
  book_hash: string | null;
}

/** Writes a journal whole, by the one function of the database that may; it computes the hash. `proof` shows that it is who posts. */
export async function insertJournal(
  trx: Db,
  head: JournalHead,
  rows: readonly JournalRowRecord[],
  movements: readonly MovementRecord[],
  taxes: readonly TaxRowRecord[],
  proof: string | null,
): Promise<{ id: bigint; hash: string }> {
  const { rows: made } = await trx.raw(
    'select id, hash from post_journal(cast(? as jsonb), cast(? as jsonb), cast(? as jsonb), cast(? as jsonb), ?)',
    [plain(head), plain(rows), plain(movements), plain(taxes), proof as string],
  );
  return made[0];
}

/** JSON for the database: amounts become decimal strings, moments ISO 8601. */
const plain = (value: unknown): string => JSON.stringify(value, bigintAsText);
const bigintAsText = (_key: string, value: unknown) => (typeof value === 'bigint' ? value.toString() : value);

export const selectJournal = (db: Db, number: string): Promise<JournalRecord | undefined> =>
  db('journals').where({ number }).first();

export const selectLiveJournal = (db: Db, source: Source, purpose: string): Promise<JournalRecord | undefined> =>
  db('journals').where({ source_kind: source.kind, source_id: source.id, purpose, live: true }).first();

export const selectRows = (db: Db, journalId: bigint): Promise<JournalRowRecord[]> =>
  db('journal_rows').where({ journal_id: journalId }).orderBy('position');

export const selectTaxRows = (db: Db, journalId: bigint): Promise<TaxRowRecord[]> =>
  db('tax_rows').where({ journal_id: journalId }).orderBy('position');

/** The movements of a journal with the open items they move. */
export function selectMovements(db: Db, journalId: bigint): Promise<MovementRecord[]> {
  return db('open_item_movements as m')
    .join('open_items as i', 'i.id', 'm.item_id')
    .where({ journal_id: journalId })
    .orderBy('m.position')
    .select(
      'm.position',
      'i.kind',
      'i.account',
      'i.currency',
      'i.person_id',
      'i.source_kind',
      'i.source_id',
      'm.amount',
      'm.ledger_amount',
    );
}

export interface OpenItemRow {
  kind: MovementRecord['kind'];
  account: string;
  currency: string;
  amount: bigint;
  ledger_amount: bigint;
}
/** What is open of a source. */
export const selectOpenItems = (db: Db, source: Source): Promise<OpenItemRow[]> =>
  db('open_items')
    .where({ source_kind: source.kind, source_id: source.id })
    .orderBy('id')
    .select('kind', 'account', 'currency', 'amount', 'ledger_amount');

/** Holds off others who move the same advances until the transaction ends. */
export async function lockAdvances(trx: Db, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await trx.raw(`select lock_open_items('staff advance', 'advance', ?)`, [[...ids]] as never);
}

/**
 * The least that is open of each advance from a day on, in minor units of its currency: what an act of that day may use. An
 * advance that is paid out later has 0 on that day.
 */
export async function selectLeastOpen(trx: Db, ids: readonly string[], from: string): Promise<Map<string, bigint>> {
  const { rows } = await trx.raw(
    `with moves as (
       select i.source_id, j.date, m.amount from open_items i join open_item_movements m on m.item_id = i.id join journals j on j.id = m.journal_id
       where i.kind = 'staff advance' and i.source_kind = 'advance' and i.source_id = any(:ids)),
     days as (select source_id, greatest(date, :from::date) as day from moves union select source_id, :from::date from moves)
     select d.source_id as id, min((select coalesce(sum(m.amount), 0) from moves m where m.source_id = d.source_id and m.date <= d.day))::bigint as least
     from days d group by 1`,
    { ids: [...ids], from } as never,
  );
  return new Map(rows.map((r: { id: string; least: bigint }) => [r.id, r.least]));
}
