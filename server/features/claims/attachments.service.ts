import type { Actor, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { removeAttachment } from '../../records/attachments/attachments.queries.ts';
import { attach, takeFile, type SentFile } from '../../records/attachments/takeFile.ts';
import { actOnClaim, type LockedClaim, type SeenClaim } from '../../records/claims/claimStore.ts';

/** Adds a file to a claim in preparation: what belongs to the claim as a whole rather than to a line. */
export async function attachToClaim(services: Services, actor: Actor, seen: SeenClaim, sent: SentFile): Promise<void> {
  const file = await takeFile(services, actor, sent);
  await edit(services, actor, seen, (trx, { at }) => attach(services, trx, actor, at, file));
}

/** Takes a file off a claim in preparation; versions that went out with it keep it. */
export const detachFromClaim = (services: Services, actor: Actor, seen: SeenClaim, id: bigint): Promise<void> =>
  edit(services, actor, seen, async (trx, { at }) => {
    if (!(await removeAttachment(trx, at, id))) throw new Refused('not-found', { what: 'attachment' });
  });

/** What stands beside a claim changes no figure, so nothing is assessed again. */
const edit = (
  services: Services,
  actor: Actor,
  seen: SeenClaim,
  work: (trx: Db, claim: LockedClaim) => Promise<void>,
): Promise<void> =>
  inTransaction(services, (trx) =>
    actOnClaim(services, trx, { act: 'edit', claim: seen, actor }, async (claim) => {
      await work(trx, claim);
      return { result: undefined, facts: { fields: ['attachments'] } };
    }),
  );
