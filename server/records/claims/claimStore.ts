import type { RecordStore, LockedRecord } from '../../platform/acts/acts.types.ts';
import { claimLifecycle, type ClaimAct, type ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import { audienceOf, type LookedAt } from '../../../core/workflow/audienceOf.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Outcome } from '../../platform/acts/acts.types.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { toldAbout } from '../../platform/messages/tell.ts';
import { lastDecider } from '../routing/lastDecider.ts';
import { lockClaimRow, updateClaim, type ClaimRow } from './claims.queries.ts';
import type { VersionKey } from './versionKey.ts';

/** A claim as an act holds it. Its history stands under its number. */
export interface LockedClaim extends LockedRecord<ClaimState> {
  row: ClaimRow;
  /** The version an act works on. */
  at: VersionKey;
}

/** What the lifecycle and the audiences look at. */
export const claimFacts = (row: ClaimRow): LookedAt & { state: ClaimState } => ({
  state: row.state,
  entity: row.entity_id,
  submitted: row.submitted_version !== null,
  approvers: row.approvers,
  people: {
    claimant: row.claimant_id,
    preparer: row.preparer_id,
    approver: row.deciders,
    decider: lastDecider(row),
    owner: row.code_owners,
    questioned: row.questioned,
    clearer: row.cleared_by,
  },
});

export const claimStore: RecordStore<ClaimState, LockedClaim, string> = {
  async lock(trx, number) {
    const row = await lockClaimRow(trx, number);
    if (!row) return undefined;
    const at = { claim_id: row.id, version: row.version };
    return { ...claimFacts(row), id: row.number, name: row.number, revision: row.revision, row, at };
  },
  save: (trx, claim, changes) => updateClaim(trx, claim.row.id, changes),
  exists: (claim, actor) => audienceOf(claimFacts(claim.row), actor) !== null,
  told(claim, columns) {
    const row: ClaimRow = { ...claim.row, ...columns };
    return { people: claimFacts(row).people, about: toldAbout(row.claimant_id, row, row.to_pay) };
  },
};

/** Which claim, as the actor has seen it. */
export interface SeenClaim {
  number: string;
  revision: number;
}

/** Does an act on a claim inside a transaction; without an actor it is the system's, which has seen nothing. */
export const actOnClaim = <Result>(
  context: Context,
  trx: Db,
  { act, claim, actor }: { act: ClaimAct; claim: { number: string; revision: number | null }; actor: Actor | null },
  work: (claim: LockedClaim) => Promise<Outcome<Result>>,
): Promise<Result> =>
  perform(
    context,
    trx,
    { lifecycle: claimLifecycle, store: claimStore, act, key: claim.number, actor, revision: claim.revision },
    work,
  );

/** Does one act on one claim, in a transaction of its own. */
export const actAlone = (
  context: Context,
  actor: Actor,
  act: ClaimAct,
  claim: SeenClaim,
  work: (trx: Db, claim: LockedClaim) => Promise<Outcome<void>>,
): Promise<void> =>
  inTransaction(context, (trx) => actOnClaim(context, trx, { act, claim, actor }, (locked) => work(trx, locked)));

/** A claim as it was seen, or (null) one that is touched without having been looked at. */
export interface TouchedClaim {
  number: string;
  revision: number | null;
}

/**
 * Does one act on several claims, all or none: each is locked in the order of its number and judged, then the work is done
 * once, then `finish` says for each what it came to.
 */
export function actOnClaims<Result>(
  context: Context,
  trx: Db,
  { act, claims, actor }: { act: ClaimAct; claims: readonly TouchedClaim[]; actor: Actor },
  work: (claims: ReadonlyMap<string, LockedClaim>) => Promise<Result>,
  finish: (claim: LockedClaim) => Promise<Omit<Outcome<void>, 'result'>>,
): Promise<Result> {
  const seen = new Map(claims.map((c) => [c.number, c.revision] as const));
  const order = [...seen.keys()].sort();
  const locked = new Map<string, LockedClaim>();
  const step = (i: number): Promise<Result> => {
    const number = order[i];
    if (number === undefined) return work(locked);
    return actOnClaim(context, trx, { act, claim: { number, revision: seen.get(number)! }, actor }, async (claim) => {
      locked.set(number, claim);
      const result = await step(i + 1);
      return { ...(await finish(claim)), result };
    });
  };
  return step(0);
}
