import { randomInt } from 'node:crypto';
import { generateSecret, generateURI, verifySync } from 'otplib';
import { signInLifecycle } from '../../../core/workflow/lifecycles/keeping.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Clock } from '../../platform/ports/clock.ts';
import {
  countRecoveryCodes,
  endSessions,
  replaceRecoveryCodes,
  selectCredentialOf,
  takeRecoveryCode,
  takeStep,
  type CredentialRow,
} from './credentials.queries.ts';
import { signInStore } from './signInStore.ts';
import { seal, unseal, type Secrets } from '../../platform/http/sealed.ts';

type Reads = Pick<Context, 'db' | 'clock'>;
const STEP_SECONDS = 30;
const CODES = 10;

/** A new secret for a person's authenticator (RFC 6238: SHA-1, six digits, thirty seconds), and its address. */
export function offerFactor({ email }: Pick<Actor, 'email'>) {
  const secret = generateSecret();
  return { secret, address: generateURI({ issuer: 'Ebbet', label: email, secret }) };
}

/** Whether somebody has a second factor, and how many codes for a lost phone they have left. */
export async function viewFactor({ db }: Pick<Context, 'db'>, { id }: Actor) {
  const row = await selectCredentialOf(db, id);
  return { on: Boolean(row?.factor), codesLeft: await countRecoveryCodes(db, id) };
}

/**
 * The second half of signing in: a code of the authenticator of now, the step before or the step after, each once; or one
 * of the codes for a lost phone. Refused as `code-needed` without one, as `wrong-code` with one that does not fit.
 */
export async function checkFactor(
  { db, clock }: Reads,
  secrets: Secrets,
  row: CredentialRow,
  code: string | undefined,
): Promise<void> {
  if (row.factor === null) return;
  if (code === undefined) throw new Refused('code-needed', { path: 'code' });
  const step = stepOf(unseal(secrets, row.factor), code, clock);
  const fits =
    step === null
      ? await takeRecoveryCode(db, row.person_id, sha256(plainCode(code)))
      : await takeStep(db, row.person_id, step);
  if (!fits) throw new Refused('wrong-code', { path: 'code' });
}

/** The time step a code belongs to, or null. */
function stepOf(secret: string | null, code: string, clock: Clock): number | null {
  const token = code.replace(/\s/g, '');
  if (secret === null || !/^\d{6}$/.test(token)) return null;
  const epoch = Math.floor(clock.now().getTime() / 1000);
  const result = verifySync({ secret, token, epoch, epochTolerance: STEP_SECONDS });
  return result.valid ? Math.floor(epoch / STEP_SECONDS) + result.delta : null;
}

/**
 * Adds the second factor that was offered, once a code shows that the authenticator holds it. Other sessions of the person
 * end. Answers the codes for a lost phone, of which only digests are kept.
 */
export async function addFactor(
  context: Context,
  secrets: Secrets,
  actor: Actor,
  { secret, code, session }: { secret: string; code: string; session: string },
): Promise<string[]> {
  const step = stepOf(secret, code, context.clock);
  if (step === null) throw new Refused('wrong-code', { path: 'code' });
  const codes = Array.from({ length: CODES }, newCode);
  await inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      {
        lifecycle: signInLifecycle,
        store: signInStore(actor.proof ?? ''),
        act: 'add',
        key: actor.id,
        actor,
        revision: null,
      },
      async () => {
        await replaceRecoveryCodes(
          trx,
          actor.id,
          codes.map((c) => sha256(plainCode(c))),
        );
        await endSessions(trx, actor.id, session);
        return { result: undefined, columns: { factor: seal(secrets, secret), factor_step: BigInt(step) } };
      },
    ),
  );
  return codes;
}

/** Removes the second factor and the codes that went with it. */
export const removeFactor = (context: Context, actor: Actor): Promise<void> =>
  inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      {
        lifecycle: signInLifecycle,
        store: signInStore(actor.proof ?? ''),
        act: 'remove',
        key: actor.id,
        actor,
        revision: null,
      },
      async () => {
        await replaceRecoveryCodes(trx, actor.id, []);
        return { result: undefined, columns: { factor: null } };
      },
    ),
  );

/** Letters and digits that are not mistaken for one another; twelve of them are 58 bits. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const newCode = (): string =>
  Array.from({ length: 12 }, (_, i) => (i === 4 || i === 8 ? '-' : '') + LETTERS[randomInt(LETTERS.length)]).join('');
const plainCode = (code: string): string => code.toLowerCase().replace(/[^a-z0-9]/g, '');
