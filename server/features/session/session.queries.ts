import type { Db } from '../../platform/db/connect.ts';

export interface PersonRow {
  id: string;
  name: string;
  email: string;
  roles: string[];
}

const people = (db: Db) =>
  db('people as p')
    .where('p.active', true)
    .select('p.id', 'p.name', 'p.email')
    .select(db.raw(`array(select role from person_roles r where r.person_id = p.id order by role) as roles`));

export const selectPerson = (db: Db, id: string): Promise<PersonRow | undefined> =>
  people(db).where('p.id', id).first();

export const selectPeople = (db: Db): Promise<PersonRow[]> => people(db).orderBy('p.name');

export function selectCredential(db: Db, email: string): Promise<{ id: string; password_hash: string } | undefined> {
  return db('people as p')
    .join('credentials as c', 'c.person_id', 'p.id')
    .where({ 'p.email': email.toLowerCase(), 'p.active': true })
    .first('p.id', 'c.password_hash');
}
