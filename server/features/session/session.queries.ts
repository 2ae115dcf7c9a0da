import type { Db } from '../../platform/db/connect.ts';
import type { Grant } from '../../platform/context.ts';

export interface PersonRow {
  id: string;
  name: string;
  email: string;
  grants: Grant[];
  /** Whose substitute they are on the day. */
  stands_for: string[];
  has_factor: boolean;
  factor_required: boolean;
}

const people = (db: Db, today: string) =>
  db('people as p')
    .where('p.active', true)
    .select('p.id', 'p.name', 'p.email')
    .select(
      db.raw(
        `(select coalesce(jsonb_agg(jsonb_build_object('role', r.role, 'entity', r.entity_id) order by r.role), '[]') from person_roles r
          where r.person_id = p.id and ?::date between coalesce(r.valid_from, '-infinity') and coalesce(r.valid_to, 'infinity')) as grants,
        (select coalesce(array_agg(s.person_id order by s.person_id), '{}') from substitutes s
          where s.substitute_id = p.id and ?::date between coalesce(s.valid_from, '-infinity') and coalesce(s.valid_to, 'infinity'))
          as stands_for,
        exists (select 1 from credentials c where c.person_id = p.id and c.factor is not null) as has_factor,
        exists (select 1 from settings s where s.key = 'second-factor-for-finance' and s.value = 'true') as factor_required`,
        [today, today],
      ),
    );

/** An active person with the roles that hold on a day. */
export const selectPerson = (db: Db, id: string, today: string): Promise<PersonRow | undefined> =>
  people(db, today).where('p.id', id).first();

export const selectPeople = (db: Db, today: string): Promise<PersonRow[]> => people(db, today).orderBy('p.name');

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
): Promise<bigint> {
  const [{ id }] = await trx('api_tokens')
    .insert({ ...row, roles: [...row.roles] })
    .returning('id');
  return id;
}
export async function revokeRow(trx: Db, id: bigint, at: Date): Promise<void> {
  await trx('api_tokens')
    .whereRaw('id = ?', [String(id)])
    .update({ revoked_at: at });
}
