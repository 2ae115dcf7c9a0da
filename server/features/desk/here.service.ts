import { audienceOf } from '../../../core/workflow/audienceOf.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { claimFacts } from '../../records/claims/claimStore.ts';
import { selectClaim } from '../../records/claims/claims.queries.ts';
import { reviewedClaim } from '../../records/claims/reviewedClaim.ts';
import { endLook, oneAtATime, selectHere, upsertLook } from './here.queries.ts';

/** How long somebody counts as being there without saying so again: a closed browser leaves by itself. */
const STAYS_MS = 45_000;

/**
 * Notes that this person has a claim open, at the version that was submitted; who else has, and which version they looked at
 * before. It forbids nothing: acts are kept apart by their revision.
 */
export async function sayHere({ db, clock }: Pick<Context, 'db' | 'clock'>, actor: Actor, number: string) {
  const claim = await reviewedClaim(db, actor, number);
  const at = clock.now();
  const until = new Date(at.getTime() + STAYS_MS);
  const look = { claim: claim.id, version: claim.submitted_version!, until };
  const before = await upsertLook(db, { person: actor.id, at }, look);
  return { others: await othersAt(db, actor, number, at), before, revision: claim.revision };
}

/** Notes that they left it. */
export async function sayLeft({ db, clock }: Pick<Context, 'db' | 'clock'>, actor: Actor, number: string) {
  const claim = await reviewedClaim(db, actor, number);
  const at = clock.now();
  await endLook(db, { person: actor.id, at }, claim.id);
  return { others: await othersAt(db, actor, number, at), before: null, revision: claim.revision };
}

/**
 * Takes the first of some claims, in their order, that nobody else has open, so that two people who go on at the same moment get
 * two claims; null when others have all of them open. Those that are not theirs to look at are passed over.
 */
export function takeNext(context: Pick<Context, 'db' | 'clock'>, actor: Actor, numbers: readonly string[]) {
  return inTransaction(context, async (trx) => {
    await oneAtATime(trx);
    const at = context.clock.now();
    const taken = await selectHere(trx, numbers, { person: actor.id, at });
    for (const number of numbers.filter((n) => !taken.has(n))) {
      const claim = await selectClaim(trx, number);
      if (!claim || audienceOf(claimFacts(claim), actor) !== 'finance') continue;
      const until = new Date(at.getTime() + STAYS_MS);
      await upsertLook(trx, { person: actor.id, at }, { claim: claim.id, version: claim.submitted_version!, until });
      return number;
    }
    return null;
  });
}

const othersAt = async (db: Context['db'], actor: Actor, number: string, at: Date): Promise<string[]> =>
  (await selectHere(db, [number], { person: actor.id, at })).get(number) ?? [];
