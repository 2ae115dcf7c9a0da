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

/** An entity a person may claim from, and the currencies they may be paid in there. */
export interface Payable {
  entity: string;
  name: string;
  currencies: string[];
}
/** Where and in what a person may be paid on a day: their own entity and currency first, then what their terms add. */
export async function selectPayable(db: Db, person: PersonRow, on: string): Promise<Payable[]> {
  const terms: { entity_id: string; currencies: string[] }[] = await db('payee_terms')
    .where({ person_id: person.id })
    .whereRaw(`?::date between coalesce(valid_from, '-infinity') and coalesce(valid_to, 'infinity')`, [on])
    .orderBy('entity_id');
  const own = { entity_id: person.entity_id, currencies: [person.currency] };
  const names: { id: string; name: string }[] = await db('entities').select('id', 'name');
  const ids = [...new Set([own, ...terms].map((t) => t.entity_id))];
  return ids.map((entity) => ({
    entity,
    name: names.find((e) => e.id === entity)!.name,
    currencies: [...new Set([own, ...terms].flatMap((t) => (t.entity_id === entity ? t.currencies : [])))],
  }));
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
