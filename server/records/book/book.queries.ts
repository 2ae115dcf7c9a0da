import type { Advance, Category, Entity, Person, Quote, TaxCode } from '../../../core/documents/case.schema.ts';
import type { CodeLeft, SharedBook } from '../../../core/documents/splitBook.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';

/** Money is measured against the euro where no direct quote exists. */
export const PIVOT = 'EUR';
export const MAX_RATE_AGE = 7;

/** The book in force for an entity. */
export interface StoredBook {
  hash: string;
  content: SharedBook;
}
export function selectStoredBook(db: Db, entityId: string): Promise<StoredBook | undefined> {
  return db('entity_books as e')
    .join('books as b', 'b.hash', 'e.hash')
    .where('e.entity_id', entityId)
    .first('b.hash', 'b.content');
}

/** Stores a book by its hash and names it as the entity's; whether that is another than before. */
export async function upsertEntityBook(trx: Db, entityId: string, hash: string, content: string): Promise<boolean> {
  await trx('books').insert({ hash, content }).onConflict('hash').ignore();
  const before = await trx('entity_books').where({ entity_id: entityId }).forUpdate().first('hash');
  await trx('entity_books').insert({ entity_id: entityId, hash }).onConflict('entity_id').merge();
  return before?.hash !== hash;
}

export const selectEntityIds = (db: Db): Promise<string[]> => db('entities').orderBy('id').pluck('id');

/** An entity as its terms say it is from one date to another; nothing when they were never set. */
export async function selectEntityTerms(db: Db, id: string): Promise<Entity[]> {
  const rows = await db('entity_terms as t')
    .join('entities as e', 'e.id', 't.entity_id')
    .where('e.id', id)
    .orderBy('t.valid_from')
    .select('t.*', 'e.name', 'e.currency');
  return rows.map((row) => ({
    id,
    name: row.name,
    currency: row.currency,
    rateDate: row.rate_date,
    taxRegistrations: row.tax_registrations,
    recovery: row.recovery,
    ownRateTolerance: row.own_rate_tolerance,
    taxNumberRequired: row.tax_number_required,
    accounts: row.accounts,
    cards: row.cards,
    planTolerance: row.plan_tolerance,
    from: row.valid_from,
    to: row.valid_to,
  }));
}

/** Which quotes are loaded: between some currencies, published on these days and between. */
export interface RateScope {
  currencies: readonly string[];
  from: string;
  to: string;
}
export function selectRates(db: Db, { currencies, from, to }: RateScope): Promise<Quote[]> {
  if (currencies.length < 2) return Promise.resolve([]);
  return db('rates')
    .whereBetween('date', [from, to])
    .whereIn('from_currency', [...currencies])
    .whereIn('to_currency', [...currencies])
    .orderBy(['from_currency', 'to_currency', 'date'])
    .select('from_currency as from', 'to_currency as to', 'date', 'rate', 'source');
}

export async function selectTaxCodes(db: Db): Promise<TaxCode[]> {
  const rows = await db('tax_codes').orderBy(['code', 'valid_from']);
  return rows.map((row) => ({
    code: row.code,
    name: row.name,
    country: row.country,
    ...(row.components
      ? { components: row.components }
      : {
          rate: row.rate,
          account: row.account,
          recovery: row.recovery,
          selfAssessed: row.self_assessed,
          outputAccount: row.output_account,
        }),
    from: row.valid_from,
    to: row.valid_to,
  }));
}

export function selectCategories(db: Db): Promise<Category[]> {
  return db('categories')
    .orderBy(['name', 'valid_from'])
    .select('id', 'name', 'account', 'recovery', 'fields', 'valid_from as from', 'valid_to as to');
}

export function selectClaimant(db: Db, id: string): Promise<Person[]> {
  return db('people').where({ id }).select('id', 'name', 'kind');
}

/** Advances with what is outstanding now, by what is open of them in the ledger. */
export async function selectAdvances(db: Db, ids: readonly string[], ledgerCurrency: string): Promise<Advance[]> {
  if (ids.length === 0) return [];
  const rows = await db('advances as a')
    .leftJoin('open_items as i', (on) =>
      on.on('i.source_id', 'a.id').andOnVal('i.source_kind', 'advance').andOnVal('i.kind', 'staff advance'),
    )
    .whereIn('a.id', [...ids])
    .orderBy('a.id')
    .select('a.id', 'a.person_id', 'a.currency', 'i.amount', 'i.ledger_amount');
  return rows.map((row) => ({
    id: row.id,
    person: row.person_id,
    currency: row.currency,
    outstanding: fromMinor(row.amount ?? 0n, row.currency),
    ledgerOutstanding: fromMinor(row.ledger_amount ?? 0n, ledgerCurrency),
  }));
}

export interface BudgetRow {
  id: string;
  dimension: string;
  code: string;
  category: string | null;
  /** Budget − posted − cleared − reserved, what the given record uses of it put back; ledger minor units. */
  left: bigint;
}

/** The budgets of an entity with what is left of each apart from some records: a claim, and the plan it comes from. */
export async function selectBudgets(
  db: Db,
  entityId: string,
  apart: readonly { kind: string; id: string }[],
): Promise<BudgetRow[]> {
  const { rows } = await db.raw(
    `select b.id::text, b.dimension_id as dimension, b.code, b.category,
       (b.amount - b.posted - b.cleared - b.reserved + coalesce(own.amount, 0))::bigint as left
     from budgets b left join (select budget_id, sum(amount) as amount from budget_movements
       where (source_kind, source_id) in (select * from unnest(?::text[], ?::text[])) group by 1) own on own.budget_id = b.id
     where b.entity_id = ? order by b.dimension_id, b.code, b.category nulls first`,
    [apart.map((a) => a.kind), apart.map((a) => a.id), entityId],
  );
  return rows;
}

/** Budgets by code, as a book holds them. */
export function writeLeft(budgets: readonly BudgetRow[], ledgerCurrency: string): CodeLeft[] {
  const codes = new Map<string, CodeLeft>();
  for (const { dimension, code, category, left } of budgets) {
    const key = `${dimension}/${code}`;
    const row = codes.get(key) ?? { dimension, code, left: null, caps: [] };
    const amount = fromMinor(left, ledgerCurrency);
    if (category === null) row.left = amount;
    else row.caps.push({ category, left: amount });
    codes.set(key, row);
  }
  return [...codes.values()];
}

/** The codes of all accounts, in their order. */
export const selectAccountCodes = (db: Db): Promise<string[]> => db('accounts').orderBy('code').pluck('code');
