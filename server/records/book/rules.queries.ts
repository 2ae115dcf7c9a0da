import type { AllowanceRate, MileageRate } from '../../../core/documents/allowance.schema.ts';
import type { CodingRule, Dimension, Limit } from '../../../core/documents/rules.schema.ts';
import { holdsOn } from '../../../core/numbers/isoDate.ts';
import type { Db } from '../../platform/db/connect.ts';

export async function selectLimits(db: Db): Promise<Limit[]> {
  const rows = await db('limits').orderBy(['id', 'valid_from']);
  return rows.map((row) => ({ ...row.rule, id: row.id, from: row.valid_from, to: row.valid_to }));
}

export async function selectMileageRates(db: Db): Promise<MileageRate[]> {
  const rows = await db('mileage_rates').orderBy(['id', 'valid_from']);
  return rows.map((row) => ({ ...row.rule, from: row.valid_from, to: row.valid_to }));
}

export async function selectAllowanceRates(db: Db): Promise<AllowanceRate[]> {
  const rows = await db('allowance_rates').orderBy(['id', 'valid_from']);
  return rows.map((row) => ({ ...row.rule, from: row.valid_from, to: row.valid_to }));
}

export async function selectCodingRules(db: Db): Promise<CodingRule[]> {
  const rows = await db('coding_rules').orderBy(['id', 'valid_from']);
  return rows.map((row) => ({ ...row.rule, id: row.id, from: row.valid_from, to: row.valid_to }));
}

/** The chart's dimensions with their codes and who answers for each. */
export async function selectDimensions(db: Db): Promise<Dimension[]> {
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
  return dimensions.map(({ id, name }) => ({
    id,
    name,
    values: values.filter((v) => v.dimension_id === id).map(({ dimension_id: _, ...value }) => value),
  }));
}

/** The statement that the policy was followed, as it reads on a day; null where none is asked for. */
export async function selectPolicyStatement(db: Db, on: string): Promise<{ version: string; text: string } | null> {
  const rows = await db('policy_statements').orderBy(['id', 'valid_from']);
  const row = rows.find((r) => holdsOn({ from: r.valid_from, to: r.valid_to }, on));
  return row ? { version: [row.id, row.valid_from].filter(Boolean).join(' of '), text: row.rule.text } : null;
}
