import { planAudienceOf, type LookedAt } from '../../../core/workflow/audienceOf.ts';
import { planLifecycle, type PlanAct, type PlanState } from '../../../core/workflow/lifecycles/planned.ts';
import type { LockedRecord, Outcome, RecordStore } from '../../platform/acts/acts.types.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { toldAbout } from '../../platform/messages/tell.ts';
import { lastDecider } from '../routing/lastDecider.ts';
import { lockPlanRow, updatePlan, type PlanRow } from './plans.queries.ts';

/** A plan as an act holds it. Its history stands under its number. */
export interface LockedPlan extends LockedRecord<PlanState> {
  row: PlanRow;
}

/** What the lifecycle and the audiences look at. */
export const planFacts = (row: PlanRow): LookedAt & { state: PlanState } => ({
  state: row.state,
  entity: row.entity_id,
  submitted: row.submitted_on !== null,
  approvers: row.approvers,
  people: {
    claimant: row.claimant_id,
    preparer: row.preparer_id,
    approver: row.deciders,
    decider: lastDecider(row),
  },
});

export const planStore: RecordStore<PlanState, LockedPlan, string> = {
  async lock(trx, number) {
    const row = await lockPlanRow(trx, number);
    return row && { ...planFacts(row), id: number, name: number, revision: row.revision, row };
  },
  save: (trx, plan, changes) => updatePlan(trx, plan.row.id, changes),
  exists: (plan, actor) => planAudienceOf(planFacts(plan.row), actor) !== null,
  told(plan, columns) {
    const row: PlanRow = { ...plan.row, ...columns };
    return { people: planFacts(row).people, about: toldAbout(row.claimant_id, row, row.total) };
  },
};

/** Which plan, as the actor has seen it. */
export interface SeenPlan {
  number: string;
  revision: number;
}

/** Does an act on a plan inside a transaction; without an actor it is the system's, which has seen nothing. */
export const actOnPlan = <Result>(
  context: Context,
  trx: Db,
  { act, plan, actor }: { act: PlanAct; plan: { number: string; revision: number | null }; actor: Actor | null },
  work: (plan: LockedPlan) => Promise<Outcome<Result>>,
): Promise<Result> =>
  perform(
    context,
    trx,
    { lifecycle: planLifecycle, store: planStore, act, key: plan.number, actor, revision: plan.revision },
    work,
  );
