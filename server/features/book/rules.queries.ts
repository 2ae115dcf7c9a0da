import type { CodingRule, Dimension, Limit } from '../../../core/documents/rules.schema.ts';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';

export async function selectLimits(db: Db): Promise<Limit[]> {
  const rows = await db('limits').orderBy(['id', 'valid_from']);
  return rows.map((row) => ({ ...row.rule, id: row.id, from: row.valid_from, to: row.valid_to }));
}

export async function selectCodingRules(db: Db): Promise<CodingRule[]> {
  const rows = await db('coding_rules').orderBy(['id', 'valid_from']);
  return rows.map((row) => ({ ...row.rule, id: row.id, from: row.valid_from, to: row.valid_to }));
}

/** For whom budgets are left: an entity, in its ledger currency, apart from the claim that is looked at. */
export interface BudgetScope {
  entityId: string;
  ledgerCurrency: string;
  claimId: bigint;
}

/** The chart with what is left of each budget: budget − posted − cleared. */
export async function selectDimensions(db: Db, scope: BudgetScope): Promise<Dimension[]> {
  const values = await db('dimension_values as v')
    .leftJoin('people as p', 'p.id', 'v.owner_id')
    .orderBy(['v.dimension_id', 'v.code'])
    .select(
      'v.dimension_id',
      'v.code',
      'v.name',
      'p.name as owner',
      'v.categories',
      'v.valid_from as from',
      'v.valid_to as to',
    );
  const dimensions = await db('dimensions').orderBy('position').select('id', 'name');
  const budgets = await budgetsLeft(db, scope);
  const write = (minor: bigint) => fromMinor(minor, scope.ledgerCurrency);
  return dimensions.map(({ id, name }) => ({
    id,
    name,
    values: values
      .filter((v) => v.dimension_id === id)
      .map(({ dimension_id: _, ...value }) => {
        const own = budgets.filter((b) => b.dimension_id === id && b.code === value.code);
        const whole = own.find((b) => b.category === null);
        const caps = own
          .filter((b) => b.category !== null)
          .map((b) => ({ category: b.category!, left: write(b.left) }));
        return { ...value, ...(whole ? { left: write(whole.left) } : {}), ...(caps.length ? { caps } : {}) };
      }),
  }));
}

interface BudgetLeft {
  dimension_id: string;
  code: string;
  category: string | null;
  left: bigint;
}
interface Charge {
  coding: Record<string, string>;
  category: string | null;
  cost: bigint;
}

async function budgetsLeft(db: Db, scope: BudgetScope): Promise<BudgetLeft[]> {
  const budgets: { dimension_id: string; code: string; category: string | null; amount: bigint }[] = await db(
    'budgets',
  ).where({ entity_id: scope.entityId });
  if (budgets.length === 0) return [];
  const charges = [...(await postedCharges(db, scope)), ...(await clearedCharges(db, scope))];
  return budgets.map((budget) => {
    const own = charges.filter(
      (c) =>
        c.coding[budget.dimension_id] === budget.code && (budget.category === null || c.category === budget.category),
    );
    return { ...budget, left: own.reduce((left, c) => left - c.cost, budget.amount) };
  });
}

/** Cost rows of the ledger, reversals included, summed by coding and category in ledger minor units. */
async function postedCharges(db: Db, { entityId }: BudgetScope): Promise<Charge[]> {
  const { rows } = await db.raw(
    `select r.coding, coalesce(i.category, l.category) as category, sum(r.debit - r.credit)::bigint as cost
       from journal_rows r
       join journals j on j.id = r.journal_id
       join lines l on l.claim_id = j.claim_id and l.version = j.claim_version and l.id = r.line_id
       left join items i on i.claim_id = l.claim_id and i.version = l.version and i.line_id = l.id and i.id = r.item_id
      where j.entity_id = ? and r.share is not null
      group by 1, 2`,
    [entityId],
  );
  return rows;
}

/** What other claims that are cleared, but not posted, will charge: from their stored assessments. */
async function clearedCharges(db: Db, { entityId, ledgerCurrency, claimId }: BudgetScope): Promise<Charge[]> {
  const { rows } = await db.raw(
    `select s.value -> 'coding' as coding, coalesce(i.category, l.category) as category, s.value ->> 'ledgerCost' as cost
       from claims c
       join assessments a on a.claim_id = c.id and a.version = c.version
       cross join lateral jsonb_array_elements(a.result -> 'lines') as n
       cross join lateral jsonb_array_elements(n.value -> 'parts') as p
       cross join lateral jsonb_array_elements(p.value -> 'shares') as s
       join lines l on l.claim_id = c.id and l.version = c.version and l.id = n.value ->> 'id'
       left join items i on i.claim_id = c.id and i.version = c.version and i.line_id = l.id and i.id = p.value ->> 'item'
      where c.state = 'cleared' and c.entity_id = ? and c.id <> ?`,
    [entityId, String(claimId)],
  );
  return rows.map((row: { coding: Record<string, string>; category: string | null; cost: string }) => ({
    ...row,
    cost: toMinor(row.cost, ledgerCurrency),
  }));
}

/** Holds off others who clear or post against the same entity's budgets until the transaction ends. */
export async function lockBudgets(trx: Db, entityId: string): Promise<void> {
  await trx.raw(`select pg_advisory_xact_lock(hashtextextended(?, 0))`, [`budgets of ${entityId}`]);
}
