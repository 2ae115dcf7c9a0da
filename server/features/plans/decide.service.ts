import { addDays } from '../../../core/numbers/isoDate.ts';
import { concernsMakers } from '../../../core/workflow/audienceOf.ts';
import { selectSettings } from '../../platform/acts/settings.queries.ts';
import type { Outcome } from '../../platform/acts/acts.types.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectPeriods } from '../../records/book/periods.queries.ts';
import { beginClaim } from '../../records/claims/beginClaim.ts';
import { assessPlanRow, frozenPlan } from '../../records/plans/assessPlan.ts';
import type { KeptPlan } from '../../records/plans/plans.types.ts';
import { actOnPlan, type LockedPlan, type SeenPlan } from '../../records/plans/planStore.ts';
import { lockPlanRow, selectClaimOfPlan, selectEstimates, type PlanRow } from '../../records/plans/plans.queries.ts';
import { routedPlan, routedPlanKey } from '../../records/plans/routedPlan.ts';
import { releasePlan, reservePlan } from '../../records/plans/reservePlan.ts';
import { beginRoute, decide, endRoute, isLastDecision, undecide } from '../../records/routing/decide.ts';
import { routeOf } from '../../records/routing/routeOf.ts';
import type { PlanAct } from '../../../core/workflow/lifecycles/planned.ts';
import { bookedLines } from './bookedLines.ts';
import { selectPastPlans } from './plans.queries.ts';

const act = <Result>(
  context: Context,
  actor: Actor,
  name: PlanAct,
  seen: SeenPlan,
  work: (trx: Db, plan: LockedPlan) => Promise<Outcome<Result>>,
): Promise<Result> =>
  inTransaction(context, (trx) => actOnPlan(context, trx, { act: name, plan: seen, actor }, (plan) => work(trx, plan)));

/** Sends a plan to whoever decides about it, with its figures by the rates of the day. */
export const submitPlan = (context: Context, actor: Actor, seen: SeenPlan): Promise<void> =>
  act(context, actor, 'submit', seen, async (trx, { row }) => {
    const { timeZone } = await selectPeriods(trx, row.entity_id);
    row.submitted_on = today(context.clock, timeZone);
    const { submitted_on } = row;
    const { assessed, columns } = await assessPlanRow(trx, row, submitted_on);
    refuseIncomplete(assessed.kept, concernsMakers);
    const route = await routeOf(trx, routedPlan(row, assessed, submitted_on));
    const record = { key: routedPlanKey(row), entity: row.entity_id, approvers: row.approvers };
    const routed = await beginRoute(trx, record, route, context.clock.now());
    return { result: undefined, columns: { ...columns, ...routed, submitted_on }, facts: { goesTo: routed.deciders } };
  });

/** What is missing, and what the chart forbids, keeps a plan where it is. */
function refuseIncomplete({ missing, findings }: KeptPlan, concerns: (finding: { code: string }) => boolean): void {
  const first = missing[0] ?? findings.find((f) => f.severity === 'stop' && concerns(f));
  if (!first) return;
  const at = 'estimate' in first && first.estimate ? first.estimate : 'line' in first ? first.line : null;
  throw new Refused('plan-incomplete', { first: `${at ? `estimate ${at}: ` : ''}${first.says}` });
}

/**
 * Approves a plan as it was submitted for all this person is asked about. With the last decision its estimates are what a claim is
 * compared with: budgets are looked at again under their locks, then what it charges to them is reserved.
 */
export const approvePlan = (
  context: Context,
  actor: Actor,
  { comment, ...seen }: SeenPlan & { comment?: string | undefined },
): Promise<void> =>
  inTransaction(context, async (trx) => {
    const found = await lockPlanRow(trx, seen.number);
    const last = !found || (await isLastDecision(trx, routedPlanKey(found), found.entity_id, actor));
    const name = last ? 'approve' : 'approvePart';
    await actOnPlan(context, trx, { act: name, plan: seen, actor }, async ({ row, revision }) => {
      const record = { key: routedPlanKey(row), entity: row.entity_id, revision, approvers: row.approvers };
      const { columns, facts } = await decide(trx, record, actor, context.clock.now());
      const agreed = last ? await agree(context, trx, row) : { columns: {}, jobs: [] };
      return {
        result: undefined,
        columns: { ...columns, ...agreed.columns },
        facts,
        words: comment ? { comment } : null,
        jobs: agreed.jobs,
      };
    });
  });

async function agree(context: Context, trx: Db, row: PlanRow) {
  const { timeZone } = await selectPeriods(trx, row.entity_id);
  row.approved_on = today(context.clock, timeZone);
  const { jobs, findings } = await reservePlan(context, trx, row);
  const over = findings.find((f) => !concernsMakers(f) && f.severity === 'stop');
  if (over) throw new Refused('plan-incomplete', { first: `estimate ${over.line}: ${over.says}` });
  return { columns: { approved_on: row.approved_on }, jobs };
}

/** Takes back one's own decision, as long as nobody did anything since; what was reserved is free again. */
export const takeBackPlan = (context: Context, actor: Actor, seen: SeenPlan): Promise<void> =>
  act(context, actor, 'takeBack', seen, async (trx, { row }) => ({
    result: undefined,
    columns: {
      ...(await undecide(trx, { key: routedPlanKey(row) }, row.decided_in!, context.clock.now())),
      approved_on: null,
    },
    jobs: await releasePlan(context, trx, row.number),
  }));

export const declinePlan = (
  context: Context,
  actor: Actor,
  { reason, ...seen }: SeenPlan & { reason: string },
): Promise<void> =>
  act(context, actor, 'decline', seen, async (trx, { row }) => ({
    result: undefined,
    columns: await endRoute(trx, routedPlanKey(row)),
    words: { reason },
  }));

/** Takes a plan back to change it before it is sent again: nobody is asked any more. */
export const callBackPlan = (context: Context, actor: Actor, seen: SeenPlan): Promise<void> =>
  act(context, actor, 'callBack', seen, async (trx, { row }) => ({
    result: undefined,
    columns: await endRoute(trx, routedPlanKey(row)),
  }));

/** Takes a plan up again that was ended; it is decided about anew. */
export const bringBackPlan = (context: Context, actor: Actor, seen: SeenPlan): Promise<void> =>
  act(context, actor, 'bringBack', seen, async () => ({ result: undefined, columns: { approved_on: null } }));

/** Ends a plan, also an approved one as long as no claim came of it; what it reserved is free again. */
export const withdrawPlan = (context: Context, actor: Actor, seen: SeenPlan): Promise<void> =>
  act(context, actor, 'withdraw', seen, async (trx, { row }) => {
    await refuseClaimed(trx, row.number);
    const columns = await endRoute(trx, routedPlanKey(row));
    return { result: undefined, columns, jobs: await releasePlan(context, trx, row.number) };
  });

async function refuseClaimed(trx: Db, plan: string): Promise<void> {
  const claim = await selectClaimOfPlan(trx, plan);
  if (claim !== null) throw new Refused('plan-claimed', { plan, claim });
}

/** Begins the claim of an approved plan: its purpose, days and coding, and its estimates to be matched. */
export const claimPlan = (context: Context, actor: Actor, seen: SeenPlan): Promise<{ number: string }> =>
  act(context, actor, 'claim', seen, async (trx, { row }) => {
    await refuseClaimed(trx, row.number);
    const { number } = await beginClaim(context, trx, actor, {
      claimant: row.claimant_id,
      entity: row.entity_id,
      currency: row.currency,
      purpose: row.purpose,
      coding: row.coding,
      tripFrom: row.trip_from,
      tripTo: row.trip_to,
      country: row.country,
      place: row.place,
      lines: await bookedLines(context, trx, actor, row),
      plan: frozenPlan(row, await selectEstimates(trx, row.id)),
    });
    return { result: { number }, facts: { claim: number } };
  });

const USUAL_DAYS = 90;
const AT_A_TIME = 100;

/** Approved plans of which no claim came for so many days after their last one end; what they reserved is free again. */
export async function lapsePlans(context: Context): Promise<void> {
  const { 'plan-lapses-after-days': days = USUAL_DAYS } = await selectSettings(context.db, ['plan-lapses-after-days']);
  const before = addDays(today(context.clock), -Number(days));
  for (let plans: string[] = ['']; plans.length > 0;) {
    plans = await selectPastPlans(context.db, before, AT_A_TIME);
    for (const number of plans)
      await inTransaction(context, (trx) =>
        actOnPlan(context, trx, { act: 'lapse', plan: { number, revision: null }, actor: null }, async () => ({
          result: undefined,
          jobs: await releasePlan(context, trx, number),
        })),
      );
  }
}
