import type { Db } from '../../platform/db/connect.ts';

export interface PersonRow {
  id: string;
  name: string;
  kind: 'employee' | 'contractor';
  entity_id: string;
  currency: string;
  usual_approver: string | null;
}
export const selectPerson = (db: Db, id: string): Promise<PersonRow | undefined> =>
  db('people').where({ id }).first('id', 'name', 'kind', 'entity_id', 'currency', 'usual_approver');

/** The id of the active person with an e-mail address who may gather receipts today; undefined when there is none. */
export async function selectGatherer(db: Db, email: string): Promise<string | undefined> {
  const row = await db('people as p')
    .whereRaw('lower(p.email) = ? and p.active', [email.toLowerCase()])
    .whereRaw(
      `exists (select 1 from person_roles r where r.person_id = p.id and r.role in ('claimant', 'preparer')
        and current_date between coalesce(r.valid_from, '-infinity') and coalesce(r.valid_to, 'infinity'))`,
    )
    .first('p.id');
  return row?.id;
}

/** Active people of some entities (null: of all), and one person besides, by name. */
export async function selectPayees(
  db: Db,
  entities: readonly string[] | null,
  self: string,
): Promise<{ id: string; name: string }[]> {
  const query = db('people').where({ active: true }).orderBy('name').select('id', 'name');
  if (entities) query.where((of) => of.whereIn('entity_id', [...entities]).orWhere({ id: self }));
  return query;
}
