import { randomBytes } from 'node:crypto';
import type { Role } from '../../../core/workflow/lifecycle.types.ts';
import { tokenLifecycle, type TokenState } from '../../../core/workflow/lifecycles/keeping.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import { perform, performBirth } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { insertToken, lockToken, revokeRow, selectTokens } from './session.queries.ts';

/** A person's tokens, newest first; never the tokens themselves, of which only hashes are kept. */
export async function viewTokens({ db }: Pick<Context, 'db'>, actor: Actor) {
  const tokens = await selectTokens(db, actor.id);
  return {
    tokens: tokens.map((t) => ({ id: t.id, name: t.name, roles: t.roles, madeAt: t.made_at, revokedAt: t.revoked_at })),
  };
}

/** Makes a token for some of one's own roles; the token is told this once. */
export async function makeToken(
  context: Context,
  actor: Actor,
  { name, roles }: { name: string; roles: readonly Role[] },
): Promise<string> {
  const lacking = roles.find((role) => !actor.holds(role, null));
  if (lacking) throw new Refused('not-allowed', { needs: lacking });
  const token = `ebbet_${randomBytes(32).toString('base64url')}`;
  const hash = sha256(token);
  const made = await inTransaction(context, (trx) =>
    performBirth(context, trx, { lifecycle: tokenLifecycle, act: 'make', actor, entity: null }, async () => {
      const row = { person_id: actor.id, name, hash, roles, made_at: context.clock.now() };
      return {
        id: String(await insertToken(trx, row, actor.proof ?? '')),
        state: 'valid',
        result: hash,
        facts: { roles },
      };
    }),
  );
  // sent again after its answer was lost: a token is told once, and kept nowhere
  if (made !== hash) throw new Refused('token-told', { name });
  return token;
}

const tokenStore = (at: Date): RecordStore<TokenState, LockedRecord<TokenState>, bigint> => ({
  async lock(trx, id) {
    const row = await lockToken(trx, id);
    if (!row) return undefined;
    const state = row.revoked_at === null ? 'valid' : 'revoked';
    return { id: String(id), name: row.name, state, revision: 1, entity: null, people: { owner: row.person_id } };
  },
  save: (trx, { id }) => revokeRow(trx, BigInt(id), at),
  exists: ({ people }, actor) => people.owner === actor.id,
});

/** Revokes a token of one's own: from now on it opens nothing. */
export const revokeToken = (context: Context, actor: Actor, id: bigint): Promise<void> =>
  inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      {
        lifecycle: tokenLifecycle,
        store: tokenStore(context.clock.now()),
        act: 'revoke',
        key: id,
        actor,
        revision: null,
      },
      async () => ({ result: undefined }),
    ),
  );
