import type { Db } from '../../platform/db/connect.ts';
import { selectMileageRates, selectPolicyStatement } from '../../records/book/rules.queries.ts';
import { selectCategories, selectTaxCodes } from '../../records/book/book.queries.ts';

/** Everything a screen needs to name and choose: dimensions with values and owners, categories, tax codes, accounts. */
export async function selectChart(db: Db, on: string) {
  const [dimensions, values, categories, taxCodes, accounts, rates, statement] = await Promise.all([
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
    selectMileageRates(db),
    selectPolicyStatement(db, on),
  ]);
  const vehicles = [...new Set(rates.map((rate) => rate.vehicle))];
  return { dimensions, values, categories, taxCodes, accounts, vehicles, statement };
}
