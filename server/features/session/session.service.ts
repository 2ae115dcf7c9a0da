import { hash, verify } from 'argon2';
import { actorWith, type Actor, type Context } from '../../platform/context.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectCredential, selectPerson, selectToken } from './session.queries.ts';

type Reads = Pick<Context, 'db' | 'clock'>;

/** Somebody nobody is: checked when an e-mail is unknown, so that the answer takes as long as for a known one. */
const nobody = hash('nobody signs in with this');

/** The id of the person whose e-mail and password these are; refused without saying which of the two is wrong. */
export async function signIn({ db }: Pick<Context, 'db'>, email: string, password: string): Promise<string> {
  const found = await selectCredential(db, email);
  const fits = await verify(found?.password_hash ?? (await nobody), password);
  if (!found || !fits) throw new Refused('wrong-password');
  return found.id;
}

/** The person with their roles as they are today, or null when they are gone. */
export async function readActor({ db, clock }: Reads, id: string): Promise<Actor | null> {
  const row = await selectPerson(db, id, today(clock));
  if (!row) return null;
  const { grants, ...person } = row;
  return actorWith(person, grants);
}

/** Whom a token acts for, with those of the person's roles that it was made for; refused when it is none, or was revoked. */
export async function readTokenActor(context: Reads, token: string): Promise<Actor> {
  const row = await selectToken(context.db, sha256(token));
  const person = row ? await readActor(context, row.person_id) : null;
  if (!row || !person) throw new Refused('wrong-token');
  return actorWith(
    person,
    person.grants.filter((g) => row.roles.includes(g.role)),
  );
}
