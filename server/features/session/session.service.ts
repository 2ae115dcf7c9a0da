import { hash, verify } from 'argon2';
import { actorWith, type Actor, type Context } from '../../platform/context.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Secrets } from '../../platform/http/sealed.ts';
import type { SignIn } from '../../../contract/session.ts';
import { FINANCE, type Role } from '../../../core/workflow/lifecycle.types.ts';
import { selectCredential } from './credentials.queries.ts';
import { checkFactor } from './factor.service.ts';
import { selectPerson, selectToken } from './session.queries.ts';

type Reads = Pick<Context, 'db' | 'clock'>;

/** The roles that an organisation can tie to a second factor: who looks at others' claims, and who says who may. */
const FACTOR_ROLES: readonly Role[] = [...FINANCE, 'administrator'];

/** Somebody nobody is: checked when an e-mail is unknown, so that the answer takes as long as for a known one. */
const nobody = hash('nobody signs in with this');

/**
 * The id of the person whose e-mail and password these are, refused without saying which of the two is wrong; then their
 * second factor, where they have one.
 */
export async function signIn(reads: Reads, secrets: Secrets, { email, password, code }: SignIn): Promise<string> {
  const found = await selectCredential(reads.db, email);
  const fits = await verify(found?.password_hash ?? (await nobody), password);
  if (!found || !fits) throw new Refused('wrong-password');
  await checkFactor(reads, secrets, found, code);
  return found.person_id;
}

/**
 * The person with their roles as they are today, or null when they are gone. Where the organisation requires a second factor
 * for finance, those roles are theirs once they have one.
 */
export async function readActor({ db, clock }: Reads, id: string): Promise<Actor | null> {
  const row = await selectPerson(db, id, clock.now());
  if (!row) return null;
  const { grants, has_factor, factor_required, stands_for: absent, ...person } = row;
  const lacking = factor_required && !has_factor;
  const held = lacking ? grants.filter((g) => !FACTOR_ROLES.includes(g.role)) : grants;
  const factor = has_factor ? 'on' : held.length < grants.length ? 'needed' : 'off';
  const standsFor = (entity: string | null) =>
    entity === null ? [...new Set(Object.values(absent).flat())] : (absent[entity] ?? []);
  return actorWith({ ...person, factor, standsFor }, held);
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
