import type { Db } from '../../platform/db/connect.ts';
import type { Grant } from '../../platform/context.ts';

export interface PersonRow {
  id: string;
  name: string;
  email: string;
  grants: Grant[];
  /** Whose substitute they are today where an entity is, by entity. */
  stands_for: Record<string, string[]>;
  has_factor: boolean;
  factor_required: boolean;
}

/** A role and a substitution hold by the day where their entity is. */
const people = (db: Db, now: Date) =>
  db('people as p')
    .where('p.active', true)
    .select('p.id', 'p.name', 'p.email')
    .select(
      db.raw(
        `(select coalesce(jsonb_agg(jsonb_build_object('role', r.role, 'entity', r.entity_id) order by r.role), '[]') from person_roles r
          where r.person_id = p.id and (?::timestamptz at time zone coalesce((select time_zone from entities where id = r.entity_id), 'UTC'))::date between coalesce(r.valid_from, '-infinity') and coalesce(r.valid_to, 'infinity')) as grants,
        (select coalesce(jsonb_object_agg(x.entity, x.people), '{}') from (
          select e.id as entity, array_agg(s.person_id order by s.person_id) as people from substitutes s cross join entities e
          where s.substitute_id = p.id and (?::timestamptz at time zone e.time_zone)::date
            between coalesce(s.valid_from, '-infinity') and coalesce(s.valid_to, 'infinity') group by e.id) x) as stands_for,
        exists (select 1 from credentials c where c.person_id = p.id and c.factor is not null) as has_factor,
        exists (select 1 from settings s where s.key = 'second-factor-for-finance' and s.value = 'true') as factor_required`,
        [now, now],
      ),
    );

/** An active person with the roles that hold now. */
export const selectPerson = (db: Db, id: string, now: Date): Promise<PersonRow | undefined> =>
  people(db, now).where('p.id', id).first();

export const selectPeople = (db: Db, now: Date): Promise<PersonRow[]> => people(db, now).orderBy('p.name');

/** Says whose a session is, in the history too; what somebody does in it is taken for theirs from then on. */
export async function openSession(db: Db, sid: string, person: string, at: Date): Promise<void> {
  await db.raw('select open_session(?, ?, ?)', [sid, person, at]);
}

export interface TokenRow {
  id: bigint;
  person_id: string;
  name: string;
  roles: Grant['role'][];
  made_at: Date;
  revoked_at: Date | null;
}
/** The token of a hash, unless it was revoked. */
export const selectToken = (db: Db, hash: string): Promise<TokenRow | undefined> =>
  db('api_tokens').where({ hash }).whereNull('revoked_at').first();

export const selectTokens = (db: Db, personId: string): Promise<TokenRow[]> =>
  db('api_tokens').where({ person_id: personId }).orderBy('id', 'desc').limit(100);

export const lockToken = (trx: Db, id: bigint): Promise<TokenRow | undefined> =>
  trx('api_tokens')
    .whereRaw('id = ?', [String(id)])
    .forUpdate()
    .first();

export async function insertToken(
  trx: Db,
  row: { person_id: string; name: string; hash: string; roles: readonly string[]; made_at: Date },
  proof: string,
): Promise<bigint> {
  const { person_id, name, hash, roles, made_at } = row;
  const values = [person_id, name, hash, [...roles], made_at, proof];
  const { rows } = await trx.raw('select make_token(?, ?, ?, ?, ?, ?) as id', values as never);
  return rows[0].id;
}
export async function revokeRow(trx: Db, id: bigint, at: Date): Promise<void> {
  await trx('api_tokens')
    .whereRaw('id = ?', [String(id)])
    .update({ revoked_at: at });
}
