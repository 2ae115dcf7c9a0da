import { SETUP_ROWS, type SetupKind } from '../../../contract/setup.ts';

/** How a field stands in its column: as it is, as JSON, or as minor units of the ledger currency of the row's entity. */
type Codec = 'plain' | 'json' | 'ledger amount';
interface Column {
  column: string;
  codec: Codec;
}

/** What has to be done when a row of a kind changes. */
export type Affects =
  | { what: 'nothing' }
  | { what: 'books'; of: 'all' | 'entity' }
  | { what: 'rates' }
  | { what: 'budget' }
  | { what: 'person' }
  /** Who decides: records that wait for somebody may go on with somebody else. */
  | { what: 'deciders' };

/** One kind of master data: from this come its checks, queries, routes, files and histories. */
export interface Descriptor {
  table: string;
  /** Fields in the order of files, with their columns. */
  columns: Record<string, Column>;
  /** Fields that name a row; with their values joined they are what its history stands under. */
  key: readonly string[];
  /**
   * dated: rows of one key follow each other in time, one at a time, and are never changed, only ended · single: one row a
   * key, of which some fields may change, the others never.
   */
  validity: 'dated' | { changes: readonly string[] };
  affects: Affects;
}

/** timeZone → time_zone, plain, unless told otherwise. */
function columnsOf(kind: SetupKind, named: Record<string, string | Column>): Record<string, Column> {
  const snake = (field: string) => field.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);
  const fields = Object.keys(SETUP_ROWS[kind].shape);
  return Object.fromEntries(
    fields.map((field): [string, Column] => {
      const given = named[field] ?? snake(field);
      return [field, typeof given === 'string' ? { column: given, codec: 'plain' } : given];
    }),
  );
}
const json = (column: string): Column => ({ column, codec: 'json' });

const describe = (
  kind: SetupKind,
  table: string,
  key: readonly string[],
  validity: Descriptor['validity'],
  affects: Affects,
  named: Record<string, string | Column> = {},
): Descriptor => ({ table, columns: columnsOf(kind, named), key, validity, affects });

const NOTHING: Affects = { what: 'nothing' };
const DECIDERS: Affects = { what: 'deciders' };
const ALL_BOOKS: Affects = { what: 'books', of: 'all' };
const OWN_BOOK: Affects = { what: 'books', of: 'entity' };

export const DESCRIPTORS: Record<SetupKind, Descriptor> = {
  entities: describe('entities', 'entities', ['id'], { changes: ['name', 'timeZone'] }, OWN_BOOK),
  'entity-terms': describe('entity-terms', 'entity_terms', ['entity'], 'dated', OWN_BOOK, {
    entity: 'entity_id',
    accounts: json('accounts'),
    cards: json('cards'),
    planTolerance: json('plan_tolerance'),
  }),
  accounts: describe('accounts', 'accounts', ['code'], { changes: ['name'] }, ALL_BOOKS),
  people: describe(
    'people',
    'people',
    ['id'],
    { changes: ['name', 'email', 'kind', 'entity', 'currency', 'usualApprover', 'sponsor', 'active'] },
    { what: 'person' },
    { entity: 'entity_id' },
  ),
  roles: describe('roles', 'person_roles', ['person', 'role', 'entity'], 'dated', DECIDERS, {
    person: 'person_id',
    entity: 'entity_id',
  }),
  'payee-terms': describe('payee-terms', 'payee_terms', ['person', 'entity'], 'dated', NOTHING, {
    person: 'person_id',
    entity: 'entity_id',
    currencies: json('currencies'),
  }),
  substitutes: describe('substitutes', 'substitutes', ['person'], 'dated', DECIDERS, {
    person: 'person_id',
    substitute: 'substitute_id',
  }),
  dimensions: describe('dimensions', 'dimensions', ['id'], { changes: [] }, ALL_BOOKS),
  'dimension-values': describe(
    'dimension-values',
    'dimension_values',
    ['dimension', 'code'],
    { changes: ['name', 'owner', 'categories'] },
    ALL_BOOKS,
    { dimension: 'dimension_id', owner: 'owner_id' },
  ),
  categories: describe('categories', 'categories', ['id'], 'dated', ALL_BOOKS, { fields: json('fields') }),
  'tax-codes': describe('tax-codes', 'tax_codes', ['code'], 'dated', ALL_BOOKS, { components: json('components') }),
  'coding-rules': describe('coding-rules', 'coding_rules', ['id'], 'dated', ALL_BOOKS, { rule: json('rule') }),
  limits: describe('limits', 'limits', ['id'], 'dated', ALL_BOOKS, { rule: json('rule') }),
  'mileage-rates': describe('mileage-rates', 'mileage_rates', ['id'], 'dated', ALL_BOOKS, { rule: json('rule') }),
  'allowance-rates': describe('allowance-rates', 'allowance_rates', ['id'], 'dated', ALL_BOOKS, { rule: json('rule') }),
  'plan-templates': describe('plan-templates', 'plan_templates', ['id'], 'dated', NOTHING, { rule: json('rule') }),
  'coding-presets': describe('coding-presets', 'coding_presets', ['id'], 'dated', NOTHING, { rule: json('rule') }),
  'policy-statements': describe('policy-statements', 'policy_statements', ['id'], 'dated', NOTHING, {
    rule: json('rule'),
  }),
  routes: describe('routes', 'routes', ['id'], 'dated', NOTHING, { rule: json('rule') }),
  'advance-rules': describe('advance-rules', 'advance_rules', ['id'], 'dated', NOTHING, { rule: json('rule') }),
  rates: describe(
    'rates',
    'rates',
    ['from', 'to', 'date'],
    { changes: [] },
    { what: 'rates' },
    {
      from: 'from_currency',
      to: 'to_currency',
    },
  ),
  budgets: describe(
    'budgets',
    'budgets',
    ['entity', 'dimension', 'code', 'category'],
    { changes: ['amount'] },
    { what: 'budget' },
    { entity: 'entity_id', dimension: 'dimension_id', amount: { column: 'amount', codec: 'ledger amount' } },
  ),
  cards: describe('cards', 'cards', ['id'], { changes: ['holder', 'label', 'closesOn'] }, NOTHING, {
    entity: 'entity_id',
    holder: 'holder_id',
  }),
  periods: describe('periods', 'periods', ['entity', 'id'], { changes: [] }, NOTHING, {
    entity: 'entity_id',
    from: 'from_date',
    to: 'to_date',
  }),
  settings: describe('settings', 'settings', ['key'], { changes: ['value'] }, NOTHING, { value: json('value') }),
};

export const isDated = ({ validity }: Descriptor): boolean => validity === 'dated';
/** Dimension values hold between dates too, although a code has one row for good. */
export const hasValidity = (descriptor: Descriptor): boolean =>
  isDated(descriptor) || descriptor.table === 'dimension_values';
