import { FINANCE, hasAny, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectEvents } from '../../platform/history/history.queries.ts';
import { lockClaim, selectClaim, type ClaimRow, type ClaimState } from './claims.queries.ts';

const relatedTo = (claim: ClaimRow, actor: Actor): boolean =>
  [claim.claimant_id, claim.preparer_id, claim.approver_id].includes(actor.id);

/** The claim, for somebody who may read it: finance, the claimant, the preparer, the approver. To others it does not exist. */
export async function readableClaim(db: Db, number: string, actor: Actor): Promise<ClaimRow> {
  const claim = await selectClaim(db, number);
  if (!claim || !(hasAny(actor, FINANCE) || relatedTo(claim, actor))) throw new Refused('not-found', { what: 'claim' });
  return claim;
}

export interface Wanted {
  number: string;
  revision: number;
  states: readonly ClaimState[];
}

/** Locks a claim for an act of finance, which is never on one's own. */
export async function lockForFinance(trx: Db, actor: Actor, number: string): Promise<ClaimRow> {
  const claim = await lockClaim(trx, number);
  if (!claim) throw new Refused('not-found', { what: 'claim' });
  if (isOwn(claim, actor)) throw new Refused('own-claim');
  return claim;
}

/**
 * Locks a claim as `lockForFinance` does; it must also be in one of the states and of the revision the actor has seen.
 * A stale act is refused with what changed since.
 */
export async function claimToActOn(trx: Db, actor: Actor, { number, revision, states }: Wanted): Promise<ClaimRow> {
  const claim = await lockForFinance(trx, actor, number);
  if (claim.revision !== revision)
    throw new Refused('stale', {
      revision: claim.revision,
      state: claim.state,
      changes: await changesSince(trx, claim, revision),
    });
  if (!states.includes(claim.state))
    throw new Refused('wrong-state', { state: claim.state, needs: states.join(' or ') });
  return claim;
}

export const isOwn = (claim: ClaimRow, actor: Actor): boolean =>
  actor.id === claim.claimant_id || actor.id === claim.preparer_id;

async function changesSince(trx: Db, claim: ClaimRow, revision: number) {
  const events = await selectEvents(trx, 'claim', claim.id);
  return events.filter((event) => Number(event.facts.revision ?? 0) > revision);
}

/** Runs an act in one transaction. */
export function inTransaction<T>({ db }: Context, act: (trx: Db) => Promise<T>): Promise<T> {
  return db.transaction((trx) => act(trx as unknown as Db));
}
