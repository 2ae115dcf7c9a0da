import { hash, verify } from 'argon2';
import type { Actor, Context, Role } from '../../platform/context.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectCredential, selectPerson } from './session.queries.ts';

/** Somebody nobody is: checked when an e-mail is unknown, so that the answer takes as long as for a known one. */
const nobody = hash('nobody signs in with this');

/** The id of the person whose e-mail and password these are; refused without saying which of the two is wrong. */
export async function signIn({ db }: Context, email: string, password: string): Promise<string> {
  const found = await selectCredential(db, email);
  const fits = await verify(found?.password_hash ?? (await nobody), password);
  if (!found || !fits) throw new Refused('wrong-password');
  return found.id;
}

/** The person with their roles as they are now, or null when they are gone. */
export async function readActor({ db }: Context, id: string): Promise<Actor | null> {
  const row = await selectPerson(db, id);
  return row ? { id: row.id, name: row.name, roles: new Set(row.roles as Role[]) } : null;
}
