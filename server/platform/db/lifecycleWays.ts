import type { Knex } from 'knex';
import { LIFECYCLES } from '../../../core/workflow/lifecycles/all.ts';

/** What is there before anybody acts, and how it begins. */
const THERE_BEFORE = ['card month', 'period'].map((kind) => ({ kind, from_state: '', to_state: 'open' }));

/** The lifecycles as rows, by which the database itself judges a change of state; written anew whenever it is made ready. */
export async function writeLifecycleWays(db: Knex): Promise<void> {
  const ways = LIFECYCLES.flatMap(({ kind, acts }) =>
    Object.values(acts)
      .flatMap((rule) => rule.ways)
      .flatMap(({ from, to }) =>
        to === null ? [] : (from ?? ['']).map((from_state) => ({ kind, from_state, to_state: to })),
      ),
  );
  ways.push(...THERE_BEFORE);
  const distinct = [...new Map(ways.map((way) => [`${way.kind} ${way.from_state} ${way.to_state}`, way])).values()];
  await db.transaction(async (trx) => {
    await trx('lifecycle_ways').delete();
    await trx('lifecycle_ways').insert(distinct);
  });
}
