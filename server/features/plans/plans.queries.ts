import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import { NOT_CLAIMED, type PlanRow } from '../../records/plans/plans.queries.ts';

/** Who and what a plan names, in words. */
export interface PlanNames {
  entityName: string;
  claimant: string;
  preparer: string;
  deciderNames: string[];
  kindName: string | null;
}
export type NamedPlan = PlanRow & PlanNames;

const named = (db: Db) =>
  db('plans as l')
    .join('entities as e', 'e.id', 'l.entity_id')
    .join('people as p', 'p.id', 'l.claimant_id')
    .join('people as b', 'b.id', 'l.preparer_id')
    .select('l.*', 'e.name as entityName', 'p.name as claimant', 'b.name as preparer')
    .select(
      db.raw(
        `(select coalesce(array_agg(d.name order by d.name), '{}') from people d where d.id = any(l.deciders)) as "deciderNames"`,
      ),
    )
    .select(
      db.raw(`(select t.rule ->> 'name' from plan_templates t where t.id = l.kind
        order by t.valid_from desc nulls last limit 1) as "kindName"`),
    );

export const selectNamedPlan = (db: Db, number: string): Promise<NamedPlan | undefined> =>
  named(db).where('l.number', number).first();

/** The plans a person makes or has made for them, newest first. */
export const selectOwnPlans = (db: Db, person: string): Promise<NamedPlan[]> =>
  named(db)
    .where((of) => of.where('l.claimant_id', person).orWhere('l.preparer_id', person))
    .orderBy('l.id', 'desc');

/** Approved plans of others in some entities (null: all) of which no claim came yet, the next to begin first. */
export const selectPlansToBook = (db: Db, entities: readonly string[] | null, person: string): Promise<NamedPlan[]> => {
  const plans = named(db)
    .where('l.state', 'approved')
    .whereNot('l.claimant_id', person)
    .whereNot('l.preparer_id', person);
  if (entities) plans.whereIn('l.entity_id', [...entities]);
  return plans.whereRaw(NOT_CLAIMED('l')).orderBy(['l.trip_from', 'l.id']);
};

/** Numbers of approved plans whose last day is before a date and of which no claim came. */
export const selectPastPlans = (db: Db, before: string, most: number): Promise<string[]> =>
  db('plans as l')
    .where('l.state', 'approved')
    .where('l.trip_to', '<', before)
    .whereRaw(NOT_CLAIMED('l'))
    .orderBy('l.id')
    .limit(most)
    .pluck('l.number');

/** A plan as a row of a list. */
export const listed = (row: NamedPlan) => ({
  number: row.number,
  revision: row.revision,
  state: row.state,
  purpose: row.purpose,
  claimant: row.claimant,
  country: row.country,
  place: row.place,
  from: row.trip_from,
  to: row.trip_to,
  currency: row.currency,
  total: row.total === null ? null : fromMinor(row.total, row.currency),
});
