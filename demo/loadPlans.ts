import { addDays } from '../core/numbers/isoDate.ts';
import type { Context } from '../server/platform/context.ts';
import type { Db } from '../server/platform/db/connect.ts';
import { approvePlan, declinePlan, submitPlan } from '../server/features/plans/decide.service.ts';
import { addEstimates, beginPlan, editEstimates } from '../server/features/plans/plans.service.ts';
import { selectPlan } from '../server/records/plans/plans.queries.ts';
import { actorOf, clockAt, moment } from './actors.ts';
import { policyStatement } from './organisation.ts';
import { allowanceRates, mileageRates, planTemplates, plans, type PlanSeed } from './plans.ts';

/** Templates, allowances and mileage, before the books are written. */
export async function loadPlanRules(db: Db): Promise<void> {
  const rules = (rows: readonly { id: string; rule: object }[]) =>
    rows.map(({ id, rule }) => ({ id, rule: JSON.stringify(rule) }));
  await db('plan_templates').insert(rules(planTemplates.map(({ id, ...rule }) => ({ id, rule }))));
  await db('allowance_rates').insert(rules(allowanceRates));
  await db('mileage_rates').insert(rules(mileageRates));
  await db('policy_statements').insert({ id: 'policy', rule: JSON.stringify({ text: policyStatement }) });
}

/** Plans through the application's own acts; the numbers of those that became claims, by the claim. */
export async function loadPlans(context: Context, day: string): Promise<Map<string, string>> {
  const ofClaims = new Map<string, string>();
  for (const [i, seed] of plans.entries()) {
    const number = await loadPlan(context, seed, day, Math.min(-1, (seed.begins ?? 20) - 24 - i));
    if (seed.claim) ofClaims.set(seed.claim, number);
  }
  return ofClaims;
}

/** Loads a plan that was begun so many days from the day (before it when negative); its number. */
export async function loadPlan(context: Context, seed: PlanSeed, day: string, begun: number): Promise<string> {
  const at = (hour: number): Context => ({ ...context, clock: clockAt(moment(addDays(day, begun), hour)) });
  const maker = actorOf(seed.preparer ?? seed.claimant);
  const from = seed.begins === undefined ? null : addDays(day, seed.begins);
  const { number } = await beginPlan(at(9), maker, {
    claimant: seed.claimant,
    kind: seed.kind,
    purpose: seed.purpose,
    country: seed.country ?? null,
    place: seed.place ?? null,
    from,
    to: from && addDays(from, seed.days - 1),
    privateDays: from && seed.privateDay ? [addDays(from, seed.privateDay)] : [],
    coding: seed.coding,
  });
  const seen = async () => ({ number, revision: (await selectPlan(context.db, number))!.revision });
  for (const [id, set] of Object.entries(seed.set ?? {}))
    await editEstimates(at(10), maker, await seen(), { ids: [id], set });
  if (seed.more) await addEstimates(at(10), maker, await seen(), seed.more);
  if (seed.state === 'draft') return number;
  await submitPlan(at(11), maker, await seen());
  const decider = async () => (await selectPlan(context.db, number))!.deciders[0];
  if (seed.state === 'approved')
    for (let by = await decider(); by; by = await decider())
      await approvePlan(at(15), actorOf(by), { ...(await seen()), comment: 'Have a good trip.' });
  if (seed.state === 'declined')
    await declinePlan(at(15), actorOf((await decider())!), {
      ...(await seen()),
      reason: 'The hall of the museum costs nothing.',
    });
  return number;
}
