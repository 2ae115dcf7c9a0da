import { randomBytes } from 'node:crypto';
import { hash, verify } from 'argon2';
import { signInLifecycle } from '../../../core/workflow/lifecycles/keeping.ts';
import { perform, performBirth } from '../../platform/acts/perform.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import {
  endSessions,
  deleteLetters,
  insertLetter,
  lockCredential,
  selectByEmail,
  selectCredentialOf,
  lockLetter,
  writeCredential,
} from './credentials.queries.ts';
import { assertGoodPassword } from './goodPassword.ts';
import { readActor } from './session.service.ts';
import { signInStore } from './signInStore.ts';

const LETTER_MINUTES = 60;

/** Refuses when a password is not the one somebody has now. */
export async function assertOwnPassword({ db }: Pick<Context, 'db'>, { id }: Actor, password: string): Promise<void> {
  const row = await selectCredentialOf(db, id);
  if (!row || !(await verify(row.password_hash, password))) throw new Refused('wrong-password', { path: 'current' });
}

/** Sets one's own password, whose good sense is checked; every other session of the person ends. */
export async function changePassword(
  context: Context,
  actor: Actor,
  password: string,
  session: string | null,
): Promise<void> {
  assertGoodPassword(password, actor);
  const password_hash = await hash(password);
  await inTransaction(context, (trx) =>
    setPassword(context, trx, { id: actor.id, actor, password_hash, proof: actor.proof ?? '' }, session),
  );
}

/** Whose password is set, and by whom: themselves, or (null) whoever held the letter that was sent to them. */
interface Setting {
  id: string;
  actor: Actor | null;
  password_hash: string;
  /** The id of their session, or the letter. */
  proof: string;
}

async function setPassword(
  context: Context,
  trx: Db,
  { id, actor, password_hash, proof }: Setting,
  session: string | null,
) {
  await endSessions(trx, id, session);
  const facts = { by: actor ? 'the person' : 'letter' };
  if (await lockCredential(trx, id)) {
    const wanted = { lifecycle: signInLifecycle, store: signInStore(proof), act: 'change', key: id, actor } as const;
    const columns = { password_hash };
    await perform(context, trx, { ...wanted, revision: null }, async () => ({ result: undefined, columns, facts }));
  } else
    await performBirth(context, trx, { lifecycle: signInLifecycle, act: 'begin', actor, entity: null }, async () => {
      const fresh = { person_id: id, password_hash, revision: 1, factor: null, factor_step: 0n };
      await writeCredential(trx, fresh, proof);
      return { id, state: 'password', result: undefined, facts };
    });
}

/** Asks for a letter: for an unknown e-mail the same is done here, and nothing in the background. */
export async function askForLetter({ db, jobs, mailer }: Services, email: string): Promise<void> {
  if (!mailer) throw new Refused('no-mail');
  await jobs.ask(db, 'send-password-letter', { email: email.toLowerCase() });
}

/** Sends the letter that was asked for: a link that sets a new password once, within an hour. */
export async function sendLetter(services: Services, email: string): Promise<void> {
  const { db, clock, mailer, publicUrl } = services;
  const person = await selectByEmail(db, email);
  if (!person) return;
  if (!mailer) throw new Refused('no-mail');
  const letter = randomBytes(32).toString('base64url');
  await insertLetter(db, { hash: sha256(letter), person_id: person.id, made_at: clock.now() });
  await mailer.send({
    to: email,
    subject: 'A new password for Ebbet',
    text: `${person.name},

somebody, we hope you, asked for a new password for Ebbet. This link sets it once, within ${LETTER_MINUTES} minutes:

${publicUrl}/new-password#${letter}

If it was not you, do nothing: your password stays as it is.
`,
  });
}

/** Sets a new password by a letter, once; every session of the person ends. */
export async function takeNewPassword(context: Context, letter: string, password: string): Promise<void> {
  const oldest = new Date(context.clock.now().getTime() - LETTER_MINUTES * 60_000);
  await inTransaction(context, async (trx) => {
    const personId = await lockLetter(trx, sha256(letter), oldest);
    const person = personId ? await readActor({ ...context, db: trx }, personId) : null;
    if (!person) throw new Refused('letter-used');
    assertGoodPassword(password, person);
    const set = { id: person.id, actor: null, password_hash: await hash(password), proof: letter };
    await setPassword(context, trx, set, null);
    await deleteLetters(trx, person.id);
  });
}
