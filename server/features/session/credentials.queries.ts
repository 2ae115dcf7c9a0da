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

/** Holds off others who change how a person signs in; the application has no right to lock the row itself. */
export async function lockCredential(trx: Db, personId: string): Promise<CredentialRow | undefined> {
  await lockName(trx, `sign-in ${personId}`);
  return selectCredentialOf(trx, personId);
}
const lockName = (trx: Db, name: string) => trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 2))', [name]);

/** Writes how a person signs in. `proof` is the id of a session of theirs, their token, or the letter that was sent to them. */
export async function writeCredential(trx: Db, row: CredentialRow, proof: string): Promise<void> {
  const { person_id, password_hash, revision, factor, factor_step } = row;
  const values = [person_id, password_hash, revision, factor as string, String(factor_step), proof];
  await trx.raw('select set_sign_in(?, ?, ?, ?, ?, ?)', values);
}

/** Takes the step of a code, unless it or a later one was taken before; whether it was free. */
export async function takeStep(db: Db, personId: string, step: number): Promise<boolean> {
  const { rows } = await db.raw('select take_step(?, ?) as taken', [personId, step]);
  return rows[0].taken;
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
  await trx.raw('select write_letter(?, ?, ?)', [row.hash, row.person_id, row.made_at]);
}

/** Whose letter this is, made after a moment; locked, so that it is used once. */
export async function lockLetter(trx: Db, hash: string, madeAfter: Date): Promise<string | undefined> {
  await lockName(trx, `letter ${hash}`);
  const letter = await trx('password_letters').where({ hash }).where('made_at', '>', madeAfter).first();
  return letter?.person_id;
}
/** A letter that was used takes every other of that person with it. */
export async function deleteLetters(trx: Db, personId: string): Promise<void> {
  await trx('password_letters').where({ person_id: personId }).delete();
}

/** Ends a person's sessions, all but one that may stay. */
export async function endSessions(trx: Db, personId: string, but: string | null): Promise<void> {
  const ending = trx('sessions').whereRaw(`sess ->> 'personId' = ?`, [personId]);
  await (but === null ? ending : ending.whereNot('sid', but)).delete();
}
