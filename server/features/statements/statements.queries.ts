import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import type { KnownCharge } from '../../../core/evidence/statements/newEntries.ts';
import type { Statement, StatementEntry } from '../../../core/evidence/statements/statement.types.ts';
import type { Mapping } from '../../../contract/statements.ts';
import type { CardRow } from '../../records/cards/cards.queries.ts';
import type { StatementFormat } from '../../platform/outside/statements/readStatements.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { sha256 } from '../../platform/history/sha256.ts';

/** The card a statement is of: by the whole account number; by its last four digits only when no other card has them. */
export async function selectCardOf(db: Db, account: string): Promise<CardRow | 'several' | undefined> {
  const whole: CardRow | undefined = await db('cards').where({ account }).first();
  if (whole) return whole;
  const alike: CardRow[] = await db('cards').where({ digits: account.slice(-4) });
  return alike.length > 1 ? 'several' : alike[0];
}

/** Waits until no other import works on the card. */
export async function lockCard(trx: Db, id: string): Promise<void> {
  await trx.raw('select lock_card(?)', [id]);
}

export async function statementIsThere(db: Db, sha256: string, position: number): Promise<boolean> {
  return (await db('statements').where({ sha256, position, state: 'imported' }).first('id')) !== undefined;
}

/** The card's charges booked between two days, as far as imports compare them. */
export async function selectKnown(trx: Db, card: CardRow, from: string, to: string): Promise<KnownCharge[]> {
  const rows = await trx('charges')
    .where({ card_id: card.id })
    .whereBetween('booked_on', [from, to])
    .orderBy('id')
    .select('id', 'reference', 'booked_on', 'settled_amount');
  return rows.map((r) => ({
    id: String(r.id),
    reference: r.reference,
    bookedOn: r.booked_on,
    settled: fromMinor(r.settled_amount, card.currency),
  }));
}

export async function insertCharges(trx: Db, card: CardRow, entries: readonly StatementEntry[]): Promise<bigint[]> {
  if (entries.length === 0) return [];
  const rows = entries.map((e) => ({
    card_id: card.id,
    reference: e.reference,
    booked_on: e.bookedOn,
    purchased_on: e.purchasedOn ?? e.bookedOn,
    amount: e.charged ? toMinor(e.charged.amount, e.charged.currency) : toMinor(e.settled, card.currency),
    currency: e.charged?.currency ?? card.currency,
    settled_amount: toMinor(e.settled, card.currency),
    settled_currency: card.currency,
    merchant: e.merchant,
    country: e.country,
    category_code: e.categoryCode,
  }));
  const made: unknown = await trx.batchInsert('charges', rows as never, 500).returning('id');
  return (made as { id: bigint }[]).map((r) => r.id);
}

/** Gives a charge that came without one the bank's reference. */
export async function nameCharge(trx: Db, id: string, reference: string): Promise<void> {
  await trx('charges').whereRaw('id = ? and reference is null', [id]).update({ reference });
}

export interface StatementRecord {
  source: 'feed' | 'file';
  name: string;
  sha256: string;
  position: number;
  format: StatementFormat;
  statement: Statement | null;
  card: CardRow | null;
  entries: number;
  added: number;
  state: 'imported' | 'refused';
  says: string | null;
  by: string | null;
  at: Date;
  original: Buffer;
}

export async function insertStatement(trx: Db, r: StatementRecord): Promise<bigint> {
  const minor = (amount: string | null | undefined) =>
    r.card && amount != null ? toMinor(amount, r.card.currency) : null;
  const [{ id }] = await trx('statements')
    .insert({
      source: r.source,
      name: r.name,
      sha256: r.sha256,
      position: r.position,
      format: r.format,
      card_id: r.card?.id ?? null,
      currency: r.statement?.currency ?? null,
      from_date: r.statement?.from ?? null,
      to_date: r.statement?.to ?? null,
      opening: minor(r.statement?.opening),
      closing: minor(r.statement?.closing),
      entries: r.entries,
      added: r.added,
      state: r.state,
      says: r.says,
      by_id: r.by,
      at: r.at,
      original: r.original,
    })
    .returning('id');
  return id;
}

export async function linkCharges(
  trx: Db,
  statementId: bigint,
  chargeIds: readonly (bigint | string)[],
): Promise<void> {
  const rows = [...new Set(chargeIds.map(String))].map((charge_id) => ({ statement_id: statementId, charge_id }));
  if (rows.length > 0) await trx.batchInsert('statement_charges', rows as never, 500);
}

/** Whether the same content was refused for the same reason before; a feed that stays wrong is noted once. */
export async function refusalIsThere(db: Db, sha256: string, position: number): Promise<boolean> {
  return (await db('statements').where({ sha256, position, state: 'refused' }).first('id')) !== undefined;
}

/** Names of the feed's deliveries of which every statement was imported; what was taken back is not fetched again. */
export async function selectImportedDeliveries(db: Db): Promise<Set<string>> {
  const rows = await db('statements')
    .where({ source: 'feed' })
    .groupBy('name')
    .having(
      db.raw(`bool_or(state in ('imported', 'taken back')) and not bool_or(state = 'refused' and not exists (
    select 1 from statements later where later.name = statements.name and later.position = statements.position and later.state in ('imported', 'taken back')))`),
    )
    .select('name');
  return new Set(rows.map((r) => r.name));
}

export async function storeFeedCheck(db: Db, at: Date, says: string | null): Promise<void> {
  await db('feed_checks').insert({ source: 'bank', at, says }).onConflict('source').merge();
}
export const selectFeedCheck = (db: Db): Promise<{ at: Date; says: string | null } | undefined> =>
  db('feed_checks').where({ source: 'bank' }).first('at', 'says');

/** How a table with these headings was read last, who said so, when, and for which card. */
export const selectMapping = (
  db: Db,
  columns: string,
): Promise<{ mapping: unknown; by: string; at: Date; card: string | null } | undefined> =>
  db('csv_mappings as m')
    .join('people as p', 'p.id', 'm.by_id')
    .where({ columns: sha256(columns) })
    .first('m.mapping', 'p.name as by', 'm.at', 'm.card_id as card');

export interface MappingRecord {
  columns: string;
  mapping: Mapping;
  by: string;
  card: string;
  at: Date;
}
export async function storeMapping(db: Db, { columns, mapping, by, card, at }: MappingRecord): Promise<void> {
  await db('csv_mappings')
    .insert({ columns: sha256(columns), mapping: JSON.stringify(mapping), by_id: by, card_id: card, at })
    .onConflict('columns')
    .merge();
}

const MOST_STATEMENTS = 200;
/** The newest statements of cards of some entities (null: of all), and those a person brought that are of no card. */
export async function selectStatements(db: Db, entities: readonly string[] | null, personId: string) {
  const query = db('statements as s')
    .leftJoin('cards as c', 'c.id', 's.card_id')
    .leftJoin('people as p', 'p.id', 's.by_id')
    .orderBy('s.id', 'desc')
    .limit(MOST_STATEMENTS)
    .select(
      's.id',
      's.source',
      's.name',
      's.format',
      's.card_id as card',
      'c.label',
      'c.entity_id as entity',
      'c.holder_id as holder',
      's.currency',
      's.from_date as from',
      's.to_date as to',
      's.opening',
      's.closing',
      's.entries',
      's.added',
      's.state',
      's.says',
      'p.name as by',
      's.at',
    );
  if (entities)
    query.where((q) =>
      q.whereIn('c.entity_id', [...entities]).orWhere((own) => own.whereNull('s.card_id').where('s.by_id', personId)),
    );
  const rows = await query;
  return rows.map((r) => ({ ...r, opening: write(r.opening, r.currency), closing: write(r.closing, r.currency) }));
}

const write = (minor: bigint | null, currency: string | null): string | null =>
  minor === null || currency === null ? null : fromMinor(minor, currency);
