import type { PlanInput } from '../../../contract/plans.ts';
import { actsOpen } from '../../../core/workflow/judgeAct.ts';
import { concernsMakers, planAudienceOf, type Audience } from '../../../core/workflow/audienceOf.ts';
import { planLifecycle } from '../../../core/workflow/lifecycles/planned.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { entitiesOf, hasAny, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectEvents, selectStateChanges } from '../../platform/history/history.queries.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectAttachments } from '../../records/attachments/attachments.queries.ts';
import { selectBookings } from '../../records/plans/bookings.queries.ts';
import type { KeptPlan } from '../../records/plans/plans.types.ts';
import { planFacts } from '../../records/plans/planStore.ts';
import {
  selectClaimOfPlan,
  selectEstimates,
  selectTemplates,
  type EstimateRow,
} from '../../records/plans/plans.queries.ts';
import { listed, selectNamedPlan, selectOwnPlans, selectPlansToBook, type NamedPlan } from './plans.queries.ts';

/** A plan from what was stored when it last changed; to those it does not concern it does not exist. */
export async function viewPlan(db: Db, actor: Actor, number: string): Promise<PlanInput> {
  const row = await selectNamedPlan(db, number);
  const audience = row ? planAudienceOf(planFacts(row), actor) : null;
  if (!row || !audience) throw new Refused('not-found', { what: 'plan' });
  const estimates = await selectEstimates(db, row.id);
  const history = await selectEvents(db, 'plan', number);
  const kept = row.assessed!;
  return {
    plan: {
      ...listed(row),
      entity: row.entity_id,
      entityName: row.entityName,
      preparer: row.preparer,
      deciders: row.deciderNames,
      kind: row.kind,
      kindName: row.kindName ?? row.kind,
      privateDays: row.private_days,
      coding: row.coding,
      submittedOn: row.submitted_on,
      approvedOn: row.approved_on,
      ratesOf: kept.on,
      claim: await selectClaimOfPlan(db, number),
      tide: tideOf(history),
    },
    estimates: estimates.map((e) => shownEstimate(e, kept)),
    problems: audience === 'booker' ? [] : problemsOf(kept, audience),
    attachments: await selectAttachments(db, { plan_id: row.id }),
    bookings: await bookingsOf(db, row.id),
    history: (audience === 'booker' ? [] : history) as never,
    may: actsOpen(planLifecycle, planFacts(row), actor, { isOn: () => false }),
  };
}

async function bookingsOf(db: Db, planId: bigint): Promise<PlanInput['bookings']> {
  const shown: PlanInput['bookings'] = [];
  for (const { id, estimate, what, date, options, chosen, paid_by, confirmation, by } of await selectBookings(
    db,
    planId,
  ))
    shown.push({
      ...{ id: String(id), estimate, what, date, options, chosen, paidBy: paid_by, confirmation, by },
      attachments: await selectAttachments(db, { booking_id: id }),
    });
  return shown;
}

const tideOf = (events: readonly { at: Date; facts: Record<string, unknown> }[]) =>
  events.flatMap(({ at, facts }) => (typeof facts.state === 'string' ? [{ state: facts.state, from: at }] : []));

function shownEstimate(row: EstimateRow, { values, amounts, explained }: KeptPlan) {
  const { id, category, description, per, coding } = row;
  const { count, price, amount, suggested } = values[id]!;
  return {
    id,
    category,
    description,
    per,
    coding,
    count,
    countTyped: row.count !== null,
    price,
    priceTyped: row.price !== null,
    amount,
    inPlanCurrency: amounts[id] ?? null,
    suggested,
    explained: explained[id] ?? [],
  };
}

/** What is missing and what the rules say, each with the field where it is put right. */
function problemsOf({ missing, findings }: KeptPlan, audience: Audience): PlanInput['problems'] {
  const told = audience === 'claimant' ? findings.filter(concernsMakers) : findings;
  return [
    ...missing.map((m) => ({ ...m, severity: 'stop' as const })),
    ...told.map((f) => ({ estimate: f.line, field: FIELDS[f.code] ?? 'coding', severity: f.severity, says: f.says })),
  ];
}
const FIELDS: Record<string, string> = { 'rate-missing': 'price' };

/** One's own plans, those that wait for one's decision, and those one may book for. */
export async function viewPlans({ db }: Pick<Context, 'db'>, actor: Actor) {
  const own = await selectOwnPlans(db, actor.id);
  const books = hasAny(actor, ['preparer']);
  const toBook = books ? await selectPlansToBook(db, entitiesOf(actor, ['preparer']), actor.id) : [];
  return {
    plans: await withTides(db, own),
    toBook: await withTides(db, toBook),
  };
}

async function withTides(db: Db, rows: readonly NamedPlan[]) {
  const numbers = rows.map((row) => row.number);
  const changes = groupBy(await selectStateChanges(db, 'plan', numbers), (change) => change.recordId);
  return rows.map((row) => ({
    ...listed(row),
    tide: (changes.get(row.number) ?? []).map(({ state, at }) => ({ state, from: at })),
  }));
}

/** The kinds of trip a plan can be begun for. */
export async function viewTemplates({ db, clock }: Pick<Context, 'db' | 'clock'>) {
  const templates = await selectTemplates(db, today(clock));
  return {
    templates: templates.map(({ id, name, lines }) => ({ id, name, categories: lines.map((l) => l.category) })),
  };
}
