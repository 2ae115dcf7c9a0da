import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Claim } from '../../../core/documents/case.schema.ts';
import type { Knex } from 'knex';
import type { JournalPage } from '../../../contract/journals.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { ShownPage } from '../../records/receipts/receipts.queries.ts';
import { PAGES } from '../../records/receipts/shows.ts';
import type { JournalRowRecord } from '../../records/ledger/ledger.types.ts';

export interface JournalListRow {
  id: bigint;
  number: string;
  entity: string;
  currency: string;
  date: string;
  purpose: string;
  source_kind: string;
  source_id: string;
  live: boolean;
  person: string | null;
  about: string | null;
  reason: string | null;
  postedBy: string;
  postedAt: Date;
  reverses: string | null;
  reversedBy: string | null;
  total: bigint;
}

const journals = (db: Db) =>
  db('journals as j')
    .joinRaw(
      `left join claims c on c.number = case when j.source_kind in ('claim', 'payment') then split_part(j.source_id, '/', 1) end`,
    )
    .joinRaw(
      `left join advances a on a.id = case when j.source_kind in ('advance', 'payment') then split_part(j.source_id, '/', 1) end`,
    )
    .joinRaw('left join people p on p.id = coalesce(c.claimant_id, a.person_id)')
    .join('people as u', 'u.id', 'j.posted_by')
    .leftJoin('journals as o', 'o.id', 'j.reverses')
    .leftJoin('journals as r', 'r.reverses', 'j.id')
    .select(
      'j.id',
      'j.number',
      'j.entity_id as entity',
      'j.currency',
      'j.date',
      'j.purpose',
      'j.source_kind',
      'j.source_id',
      'j.live',
      'p.name as person',
      'j.reason',
      'u.name as postedBy',
      'j.posted_at as postedAt',
      'o.number as reverses',
      'r.number as reversedBy',
    )
    .select(db.raw('coalesce(c.purpose, a.purpose) as about'))
    .select(db.raw('(select sum(debit) from journal_rows x where x.journal_id = j.id)::bigint as total'));

export const JOURNAL_PAGE = 50;

export type JournalFilter = JournalPage & { entities: readonly string[] | null };

/** A page of journals, newest first by the order asked for; `before` is the id of the last one seen. */
export async function selectJournalPage(db: Db, filter: JournalFilter): Promise<JournalListRow[]> {
  const query = journals(db).limit(JOURNAL_PAGE);
  const byDate = filter.order === 'date';
  query.orderBy(
    byDate
      ? [
          { column: 'j.date', order: 'desc' },
          { column: 'j.id', order: 'desc' },
        ]
      : [{ column: 'j.id', order: 'desc' }],
  );
  if (filter.before && byDate)
    query.whereRaw('(j.date, j.id) < (select date, id from journals where id = ?)', [filter.before]);
  else if (filter.before) query.whereRaw('j.id < ?', [filter.before]);
  return filtered(query, filter);
}

/** How many journals there are of what is asked for, and what they come to, by currency. */
export async function selectJournalTotals(
  db: Db,
  filter: JournalFilter,
): Promise<{ currency: string; journals: number; amount: bigint }[]> {
  const all = filtered(journals(db), filter).as('found');
  return db
    .from(all)
    .groupBy('currency')
    .orderBy('currency')
    .select('currency', db.raw('count(*)::int as journals'), db.raw('sum(total)::bigint as amount'));
}

function filtered<Q extends Knex.QueryBuilder>(query: Q, { entities, entity, from, to, q, state }: JournalFilter): Q {
  if (entities) query.whereIn('j.entity_id', [...entities]);
  if (entity) query.where('j.entity_id', entity);
  if (from) query.where('j.date', '>=', from);
  if (to) query.where('j.date', '<=', to);
  if (q) {
    const like = `%${q.replace(/[\\%_]/g, '\\$&')}%`;
    query.whereRaw('(p.name ilike ? or j.number ilike ? or j.source_id ilike ?)', [like, like, like]);
  }
  if (state === 'reversals') query.whereNotNull('j.reverses');
  if (state === 'reversed') query.whereNotNull('r.id');
  if (state === 'standing') query.whereNull('j.reverses').whereNull('r.id');
  return query;
}

export const selectJournalHeader = (db: Db, number: string): Promise<JournalListRow | undefined> =>
  journals(db).where('j.number', number).first();

/** What a journal was made from: its own document, or that of the journal it reverses. */
export async function selectJournalDocument(
  db: Db,
  journalId: bigint,
): Promise<{ claim: Claim; assessment: Assessment; receipts: Record<string, string> } | null> {
  const rows = await db('journals as j')
    .leftJoin('journals as o', 'o.id', 'j.reverses')
    .whereRaw('j.id = ?', [String(journalId)])
    .select(db.raw('coalesce(j.document, o.document) as document'));
  return rows[0]?.document ?? null;
}

export type ReceiptPages = Map<string, ShownPage[]>;

/** The sizes of the pages of some receipts, by receipt. */
export async function selectReceiptPages(db: Db, ids: readonly string[]): Promise<ReceiptPages> {
  const rows = await db('receipts as r')
    .leftJoin('readings as g', 'g.sha256', 'r.sha256')
    .whereRaw('r.id = any(?::bigint[])', [[...ids]])
    .select('r.id', db.raw(`${PAGES('r', 'g')} as pages`));
  return new Map(rows.map(({ id, pages }) => [String(id), pages]));
}

export interface ExportRow extends JournalRowRecord {
  journal: string;
  date: string;
  purpose: string;
  entity: string;
  ledger_currency: string;
  source: string;
}

export interface ExportFilter {
  entities: readonly string[] | null;
  from: string | null;
  to: string | null;
}

/** Every row of every journal of some entities between two dates, in the order of posting. */
export function selectExport(db: Db, { entities, from, to }: ExportFilter): Promise<ExportRow[]> {
  const query = db('journal_rows as r')
    .join('journals as j', 'j.id', 'r.journal_id')
    .orderBy(['j.id', 'r.position'])
    .select(
      'j.number as journal',
      'j.date',
      'j.purpose',
      'j.entity_id as entity',
      'j.currency as ledger_currency',
      'j.source_id as source',
      'r.*',
    );
  if (entities) query.whereIn('j.entity_id', [...entities]);
  if (from) query.where('j.date', '>=', from);
  if (to) query.where('j.date', '<=', to);
  return query;
}

export interface ClearedRow {
  number: string;
  revision: number;
  entity: string;
  claimant: string;
  purpose: string;
  clearedBy: string;
  currency: string;
  to_pay: bigint | null;
  claimant_id: string;
  preparer_id: string;
  cleared_by: string;
}
/** Claims of some entities that wait to be posted, oldest first. */
export function selectCleared(db: Db, entities: readonly string[] | null): Promise<ClearedRow[]> {
  const query = db('claims as c')
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
      'c.currency',
      'c.to_pay',
      'c.claimant_id',
      'c.preparer_id',
      'c.cleared_by',
    );
  return entities ? query.whereIn('c.entity_id', [...entities]) : query;
}
