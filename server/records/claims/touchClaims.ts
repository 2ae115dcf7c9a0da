import type { ClaimAct } from '../../../core/workflow/lifecycles/claim.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { assessRows } from './assessClaim.ts';
import { actOnClaims, type LockedClaim, type TouchedClaim } from './claimStore.ts';
import { selectClaimsOfCharges } from './preparation.queries.ts';
import { writtenDraft } from './writtenDraft.ts';

/** An act on claims in preparation, and what its events say. */
export interface Touch {
  act: ClaimAct;
  actor: Actor;
  claims: readonly TouchedClaim[];
  /** Charges whose division among lines may change: every claim in preparation that has part of one is touched too. */
  charges: readonly string[];
  facts: () => Record<string, unknown>;
}

/** Does an act on claims in preparation: each is locked, changed, assessed anew, and leaves an event. */
export async function touchClaims<Result>(
  context: Context,
  trx: Db,
  { act, actor, claims, charges, facts }: Touch,
  work: (claims: ReadonlyMap<string, LockedClaim>) => Promise<Result>,
): Promise<Result> {
  const named = new Set(claims.map((c) => c.number));
  const others = charges.length ? await selectClaimsOfCharges(trx, charges) : [];
  const touched = others.filter((number) => !named.has(number)).map((number) => ({ number, revision: null }));
  return actOnClaims(
    context,
    trx,
    { act, actor, claims: [...claims, ...touched] },
    work,
    async ({ row, revision, at }) => {
      const { columns } = await assessRows(trx, context.clock, row, revision, writtenDraft(context.db, at));
      return { columns, facts: facts() };
    },
  );
}
