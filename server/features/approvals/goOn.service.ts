import { DECIDERS } from '../../../core/workflow/lifecycle.types.ts';
import type { Routed } from '../../../core/routing/route.schema.ts';
import type { Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { actOnAdvance } from '../../records/advances/advanceStore.ts';
import { routedAdvance, routedAdvanceKey } from '../../records/advances/routedAdvance.ts';
import { entityToday } from '../../records/book/postingDate.ts';
import { askOwnersAnew } from '../../records/claims/addedCodes.ts';
import { keptClaim } from '../../records/claims/assessClaim.ts';
import { actOnClaim } from '../../records/claims/claimStore.ts';
import { routedClaim, routedKey } from '../../records/claims/routedClaim.ts';
import { actOnPlan } from '../../records/plans/planStore.ts';
import { assessPlan } from '../../records/plans/assessPlan.ts';
import { routedPlan, routedPlanKey } from '../../records/plans/routedPlan.ts';
import { goOn } from '../../records/routing/goOn.ts';
import { selectLedgerCurrency } from './approvals.queries.ts';
import { selectStuck } from './goOn.queries.ts';

/**
 * Records that wait for somebody who has left, lost the role, or is stood in for since, or no longer, go on with who decides
 * now. Each is one transaction; doing it twice changes nothing.
 */
export async function goOnWithRoutes(context: Context): Promise<void> {
  for (const { kind, number } of await selectStuck(context.db, context.clock.now(), DECIDERS))
    await inTransaction(context, (trx) => GO_ON[kind](context, trx, number));
}

type GoOn = (context: Context, trx: Db, number: string) => Promise<void>;
const UNCHANGED = { result: undefined, unchanged: true } as const;
const changed = (columns: Record<string, unknown> | null) => (columns ? { result: undefined, columns } : UNCHANGED);

const claimGoesOn: GoOn = (context, trx, number) =>
  actOnClaim(context, trx, { act: 'reroute', claim: { number, revision: null }, actor: null }, async (claim) => {
    const { row, at } = claim;
    const kept = await keptClaim(trx, at);
    const today = await entityToday(trx, context.clock, row.entity_id);
    if (row.state === 'in review') return changed(await askOwnersAnew(trx, context.clock, claim, kept));
    const subject = routedClaim(row, kept, row.submitted_on!);
    return changed(
      await goOn(trx, { key: routedKey(row), subject, approvers: row.approvers, today, at: context.clock.now() }),
    );
  });

const planGoesOn: GoOn = (context, trx, number) =>
  actOnPlan(context, trx, { act: 'reroute', plan: { number, revision: null }, actor: null }, async ({ row }) => {
    const on = row.submitted_on!;
    const subject = routedPlan(row, await assessPlan(trx, row, on), on);
    const today = await entityToday(trx, context.clock, row.entity_id);
    return changed(
      await goOn(trx, { key: routedPlanKey(row), subject, approvers: row.approvers, today, at: context.clock.now() }),
    );
  });

const advanceGoesOn: GoOn = (context, trx, number) =>
  actOnAdvance(context, trx, { act: 'reroute', advance: { number, revision: null }, actor: null }, async ({ row }) => {
    const ledger = (await selectLedgerCurrency(trx, row.entity_id))!;
    const subject = routedAdvance(row, ledger, row.requested_on!);
    const today = await entityToday(trx, context.clock, row.entity_id);
    return changed(
      await goOn(trx, {
        key: routedAdvanceKey(row),
        subject,
        approvers: row.approvers,
        today,
        at: context.clock.now(),
      }),
    );
  });

const GO_ON: Record<Routed, GoOn> = { claim: claimGoesOn, plan: planGoesOn, advance: advanceGoesOn };
