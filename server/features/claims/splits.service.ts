import type { SplitsAnswer } from '../../../contract/beside.ts';
import type { Plan, Split } from '../../../core/documents/case.schema.ts';
import { mergeCoding } from '../../../core/figures/coding/mergeCoding.ts';
import { splitByPlan } from '../../../core/figures/split/splitByPlan.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { keptClaim } from '../../records/claims/assessClaim.ts';
import { reviewedClaim } from '../../records/claims/reviewedClaim.ts';
import { selectEstimates, selectPlan } from '../../records/plans/plans.queries.ts';
import { selectEarlierSplits } from './splits.queries.ts';

const MOST = 5;

/** How lines of a claim may be divided: as its plan was coded, and as the same person's claims were divided lately. */
export async function viewSplits({ db }: Pick<Context, 'db'>, actor: Actor, number: string): Promise<SplitsAnswer> {
  const row = await reviewedClaim(db, actor, number);
  const { claim } = await keptClaim(db, { claim_id: row.id, version: row.submitted_version! });
  const earlier = await selectEarlierSplits(db, row);
  return {
    plan: claim.plan ? await planSplit(db, claim.plan, claim.currency) : null,
    earlier: eachOnce(earlier).slice(0, MOST),
  };
}

/** Estimates as they were frozen when the plan was approved, each under its own coding. */
async function planSplit(db: Db, { number, estimates }: Plan, currency: string): Promise<Split | null> {
  const plan = await selectPlan(db, number);
  if (!plan) return null;
  const codings = new Map((await selectEstimates(db, plan.id)).map((e) => [e.id, e.coding]));
  const planned = estimates.map(({ id, amount }) => ({
    amount,
    coding: mergeCoding(plan.coding, codings.get(id), null),
  }));
  return splitByPlan(planned, currency);
}

type Earlier = SplitsAnswer['earlier'][number];
const eachOnce = (all: readonly Earlier[]): Earlier[] =>
  [...groupBy(all, (one) => canonical(one.split)).values()].map(([first]) => first!);
