import type { Db } from '../../platform/db/connect.ts';

export interface CredentialRow {
  person_id: string;
  password_hash: string;
  revision: number;
  factor: string | null;
  factor_step: bigint;
}
const SHOWN = ['c.person_id', 'c.password_hash', 'c.revision', 'c.factor', 'c.factor_step'] as const;

/** How an active person signs in. */
export const selectCredential = (db: Db, email: string): Promise<CredentialRow | undefined> =>
  db('people as p')
    .join('credentials as c', 'c.person_id', 'p.id')
    .where({ 'p.email': email.toLowerCase(), 'p.active': true })
    .first(...SHOWN);

export const selectCredentialOf = (db: Db, personId: string): Promise<CredentialRow | undefined> =>
  db('credentials as c')
    .where({ person_id: personId })
    .first(...SHOWN);

export const lockCredential = (trx: Db, personId: string): Promise<CredentialRow | undefined> =>
  trx('credentials as c')
    .where({ person_id: personId })
    .forUpdate()
    .first(...SHOWN);

export async function insertCredential(trx: Db, personId: string, hash: string): Promise<void> {
  await trx('credentials').insert({ person_id: personId, password_hash: hash });
}
export async function updateCredential(trx: Db, personId: string, columns: Partial<CredentialRow>): Promise<void> {
  await trx('credentials').where({ person_id: personId }).update(columns);
}

/** Takes the step of a code, unless it or a later one was taken before; whether it was free. */
export async function takeStep(db: Db, personId: string, step: number): Promise<boolean> {
  const taken = await db('credentials')
    .where({ person_id: personId })
    .whereRaw('factor_step < ?', [step])
    .update({ factor_step: step });
  return taken === 1;
}

/** Takes a code for a lost phone; whether it was there. */
export const takeRecoveryCode = async (db: Db, personId: string, hash: string): Promise<boolean> =>
  (await db('recovery_codes').where({ person_id: personId, hash }).delete()) === 1;

export async function replaceRecoveryCodes(trx: Db, personId: string, hashes: readonly string[]): Promise<void> {
  await trx('recovery_codes').where({ person_id: personId }).delete();
  if (hashes.length > 0) await trx('recovery_codes').insert(hashes.map((hash) => ({ hash, person_id: personId })));
}
export async function countRecoveryCodes(db: Db, personId: string): Promise<number> {
  const row = await db('recovery_codes').where({ person_id: personId }).count({ left: '*' }).first();
  return Number(row?.left ?? 0);
}

/** An active person by e-mail. */
export const selectByEmail = (db: Db, email: string): Promise<{ id: string; name: string } | undefined> =>
  db('people').where({ email: email.toLowerCase(), active: true }).first('id', 'name');

export async function insertLetter(trx: Db, row: { hash: string; person_id: string; made_at: Date }): Promise<void> {
  await trx('password_letters').insert(row);
}

/** Takes the letter of a hash made after a moment, and with it every other of that person; whose it is. */
export async function takeLetter(trx: Db, hash: string, madeAfter: Date): Promise<string | undefined> {
  const [letter] = await trx('password_letters')
    .where({ hash })
    .where('made_at', '>', madeAfter)
    .delete()
    .returning('person_id');
  if (letter) await trx('password_letters').where({ person_id: letter.person_id }).delete();
  return letter?.person_id;
}

/** Ends a person's sessions, all but one that may stay. */
export async function endSessions(trx: Db, personId: string, but: string | null): Promise<void> {
  const ending = trx('sessions').whereRaw(`sess ->> 'personId' = ?`, [personId]);
  await (but === null ? ending : ending.whereNot('sid', but)).delete();
}
