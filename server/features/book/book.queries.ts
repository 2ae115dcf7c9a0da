import type { Advance, Book, Category, Entity, Person, Quote, TaxCode } from '../../../core/documents/case.schema.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectCodingRules, selectDimensions, selectLimits } from './rules.queries.ts';

/** Money is measured against the euro where no direct quote exists. */
const PIVOT = 'EUR';
export const MAX_RATE_AGE = 7;

export interface BookScope {
  entityId: string;
  claimantId: string;
  claimId: bigint;
  advanceIds: string[];
  /** Every currency in which something of the claim is stated; those of advances and ledger are added. */
  currencies: string[];
  /** Quotes published on these days and between are loaded. */
  ratesFrom: string;
  ratesTo: string;
}

/** The part of the book one claim is assessed by, as the case document holds it. */
export async function selectBook(db: Db, scope: BookScope): Promise<Book> {
  const entity = await selectEntity(db, scope.entityId);
  const advances = await selectAdvances(db, scope.advanceIds, entity.currency);
  const currencies = [...scope.currencies, ...advances.map((a) => a.currency), entity.currency, PIVOT];
  return {
    entities: [entity],
    pivot: PIVOT,
    maxRateAge: MAX_RATE_AGE,
    rates: await selectRates(db, { ...scope, currencies }),
    taxCodes: await selectTaxCodes(db),
    categories: await selectCategories(db),
    people: await selectClaimant(db, scope.claimantId),
    advances,
    dimensions: await selectDimensions(db, {
      entityId: entity.id,
      ledgerCurrency: entity.currency,
      claimId: scope.claimId,
    }),
    codingRules: await selectCodingRules(db),
    limits: await selectLimits(db),
  };
}

export async function selectEntity(db: Db, id: string): Promise<Entity> {
  const row = await db('entities').where({ id }).first();
  return {
    id: row.id,
    name: row.name,
    currency: row.currency,
    rateDate: row.rate_date,
    taxRegistrations: row.tax_registrations,
    recovery: row.recovery,
    ownRateTolerance: row.own_rate_tolerance,
    taxNumberRequired: row.tax_number_required,
    accounts: row.accounts,
    cards: row.cards,
  };
}

function selectRates(db: Db, { currencies, ratesFrom, ratesTo }: BookScope): Promise<Quote[]> {
  return db('rates')
    .whereBetween('date', [ratesFrom, ratesTo])
    .whereIn('from_currency', currencies)
    .whereIn('to_currency', currencies)
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
    .select('id', 'name', 'account', 'recovery', 'valid_from as from', 'valid_to as to');
}

function selectClaimant(db: Db, id: string): Promise<Person[]> {
  return db('people').where({ id }).select('id', 'name', 'kind');
}

/** Advances with what is outstanding now: the sum of their movements. */
async function selectAdvances(db: Db, ids: string[], ledgerCurrency: string): Promise<Advance[]> {
  if (ids.length === 0) return [];
  const rows = await db('advances as a')
    .leftJoin('advance_movements as m', 'm.advance_id', 'a.id')
    .whereIn('a.id', ids)
    .groupBy('a.id')
    .orderBy('a.id')
    .select('a.id', 'a.person_id', 'a.currency')
    .select(db.raw('coalesce(sum(m.part), 0)::bigint as part, coalesce(sum(m.ledger_part), 0)::bigint as ledger_part'));
  return rows.map((row) => ({
    id: row.id,
    person: row.person_id,
    currency: row.currency,
    outstanding: fromMinor(row.part, row.currency),
    ledgerOutstanding: fromMinor(row.ledger_part, ledgerCurrency),
  }));
}

/** Everything a screen needs to name and choose: dimensions with values and owners, categories, tax codes, accounts. */
export async function selectChart(db: Db) {
  const [dimensions, values, categories, taxCodes, accounts] = await Promise.all([
    db('dimensions').orderBy('position').select('id', 'name'),
    db('dimension_values as v')
      .leftJoin('people as p', 'p.id', 'v.owner_id')
      .orderBy(['v.dimension_id', 'v.code'])
      .select(
        'v.dimension_id as dimension',
        'v.code',
        'v.name',
        'v.valid_from as from',
        'v.valid_to as to',
        'p.name as owner',
      ),
    selectCategories(db),
    selectTaxCodes(db),
    db('accounts').orderBy('code').select('code', 'name'),
  ]);
  return { dimensions, values, categories, taxCodes, accounts };
}

export interface PeriodRow {
  id: string;
  from_date: string;
  to_date: string;
  state: 'open' | 'closed';
}

export const selectPeriods = (db: Db, entityId: string): Promise<PeriodRow[]> =>
  db('periods').where({ entity_id: entityId }).orderBy('from_date').select('id', 'from_date', 'to_date', 'state');
