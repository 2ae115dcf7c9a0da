import type { BeginPlan, EstimatesEdit, EstimateSet, NewEstimate, PlanHeaderSet } from '../../../contract/plans.ts';
import { planLifecycle } from '../../../core/workflow/lifecycles/planned.ts';
import { performBirth } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { entityToday } from '../../records/book/postingDate.ts';
import { usualCoding } from '../../records/claims/beginClaim.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { selectPerson } from '../../records/people/people.queries.ts';
import { assessPlanRow } from '../../records/plans/assessPlan.ts';
import { actOnPlan, type LockedPlan, type SeenPlan } from '../../records/plans/planStore.ts';
import {
  deleteEstimate,
  insertEstimates,
  insertPlan,
  selectEstimates,
  selectTemplates,
  updateEstimate,
  updatePlan,
  type EstimateRow,
  type PlanRow,
} from '../../records/plans/plans.queries.ts';

/** Begins a plan from the template of its kind of trip, one's own or for somebody else; its number. */
export const beginPlan = (context: Context, actor: Actor, begin: BeginPlan): Promise<{ number: string }> =>
  inTransaction(context, async (trx) => {
    const person = await selectPerson(trx, begin.claimant ?? actor.id);
    if (!person) throw new Refused('not-found', { what: 'person' });
    const day = await entityToday(trx, context.clock, person.entity_id);
    const template = (await selectTemplates(trx, day)).find((t) => t.id === begin.kind);
    if (!template) throw new Refused('no-template', { kind: begin.kind });
    const birth = { lifecycle: planLifecycle, act: 'begin', actor, entity: person.entity_id } as const;
    return performBirth(context, trx, { ...birth, people: { claimant: person.id } }, async () => {
      const row = await insertPlan(trx, {
        entity_id: person.entity_id,
        claimant_id: person.id,
        preparer_id: actor.id,
        currency: person.currency,
        kind: begin.kind,
        purpose: begin.purpose,
        country: begin.country ?? null,
        place: begin.place ?? null,
        trip_from: begin.from ?? null,
        trip_to: begin.to ?? null,
        private_days: begin.privateDays ?? [],
        coding: begin.coding ?? (await usualCoding(trx, person.id)),
      });
      await addRows(trx, row, template.lines);
      const { columns } = await assessPlanRow(trx, row, day);
      await updatePlan(trx, row.id, columns);
      return { id: row.number, state: 'draft', result: { number: row.number }, facts: { kind: row.kind } };
    });
  });

/** Changes a plan in preparation, computes it anew and leaves an event that names what changed. */
function edit(
  context: Context,
  actor: Actor,
  seen: SeenPlan,
  fields: readonly string[],
  work: (trx: Db, plan: LockedPlan) => Promise<void>,
): Promise<void> {
  return inTransaction(context, (trx) =>
    actOnPlan(context, trx, { act: 'edit', plan: seen, actor }, async (plan) => {
      await work(trx, plan);
      const { columns } = await assessPlanRow(trx, plan.row, await entityToday(trx, context.clock, plan.row.entity_id));
      return { result: undefined, columns, facts: { fields } };
    }),
  );
}

/** Changes what a plan says of the trip. */
export const editPlan = (context: Context, actor: Actor, seen: SeenPlan, set: PlanHeaderSet): Promise<void> =>
  edit(context, actor, seen, Object.keys(set), async (trx, { row }) => {
    const { from: trip_from = row.trip_from, to: trip_to = row.trip_to } = set;
    if (trip_from && trip_to && trip_to < trip_from)
      throw invalid({ path: ['set', 'to'], message: 'is before the first day' });
    const { purpose = row.purpose, country = row.country, place = row.place, coding = row.coding } = set;
    const private_days = [...new Set(set.privateDays ?? row.private_days)].sort();
    const columns = { purpose, country, place, trip_from, trip_to, private_days, coding };
    Object.assign(row, columns);
    await updatePlan(trx, row.id, columns);
  });

export const addEstimates = (
  context: Context,
  actor: Actor,
  seen: SeenPlan,
  estimates: readonly NewEstimate[],
): Promise<void> => edit(context, actor, seen, ['estimates'], (trx, { row }) => addRows(trx, row, estimates));

/** Changes some estimates at once, all or none. */
export const editEstimates = (context: Context, actor: Actor, seen: SeenPlan, change: EstimatesEdit): Promise<void> => {
  const fields = [...Object.keys(change.set), ...(change.codes ? ['coding'] : [])];
  return edit(context, actor, seen, fields, (trx, { row }) => setEstimates(trx, row, change));
};

export const removeEstimate = (context: Context, actor: Actor, seen: SeenPlan, id: string): Promise<void> =>
  edit(context, actor, seen, ['estimates'], async (trx, { row }) => {
    await assertThere(trx, row, [id]);
    await deleteEstimate(trx, row.id, id);
  });

/** What a change of some estimates would come to: done, computed, and taken back. */
export async function rehearseEstimates(
  context: Context,
  actor: Actor,
  seen: SeenPlan,
  change: EstimatesEdit,
  view: (trx: Db) => Promise<unknown>,
): Promise<unknown> {
  const done = new Rehearsed();
  try {
    await inTransaction(context, async (trx) => {
      await actOnPlan(context, trx, { act: 'edit', plan: seen, actor }, async ({ row }) => {
        await setEstimates(trx, row, change);
        const { columns } = await assessPlanRow(trx, row, await entityToday(trx, context.clock, row.entity_id));
        await updatePlan(trx, row.id, columns);
        return { result: undefined, unchanged: true };
      });
      done.view = await view(trx);
      throw done;
    });
  } catch (error) {
    if (error !== done) throw error;
  }
  return done.view;
}
/** Takes a transaction back that only was to show what would come of it. */
class Rehearsed extends Error {
  view: unknown;
}

async function setEstimates(trx: Db, row: PlanRow, { ids, set, codes }: EstimatesEdit): Promise<void> {
  const there = await assertThere(trx, row, ids);
  for (const id of ids) {
    const coding = { ...(set.coding ?? there.get(id)!.coding), ...codes };
    await updateEstimate(trx, row.id, id, { ...columnsOf(set), coding });
  }
}

async function assertThere(trx: Db, row: PlanRow, ids: readonly string[]): Promise<Map<string, EstimateRow>> {
  const there = new Map((await selectEstimates(trx, row.id)).map((e) => [e.id, e]));
  const missing = ids.find((id) => !there.has(id));
  if (missing !== undefined) throw new Refused('no-estimate', { estimate: missing });
  return there;
}

/** Adds estimates at the end; a number is given once, so that what the history says of one stays about that one. */
async function addRows(trx: Db, row: PlanRow, estimates: readonly NewEstimate[]): Promise<void> {
  const there = await selectEstimates(trx, row.id);
  const last = Math.max(-1, ...there.map((e) => e.position));
  const rows = estimates.map((estimate, i) => ({
    description: null,
    count: null,
    price: null,
    currency: null,
    coding: {},
    ...(columnsOf(estimate) as Pick<EstimateRow, 'category' | 'per'>),
    id: String(row.last_estimate + 1 + i),
    position: last + 1 + i,
  }));
  await insertEstimates(trx, row.id, rows);
  row.last_estimate += rows.length;
  await updatePlan(trx, row.id, { last_estimate: row.last_estimate });
}

/** Given fields as columns; an amount without the decimals of its currency is refused. */
function columnsOf({ price, ...rest }: EstimateSet): Partial<EstimateRow> {
  if (price === undefined) return rest as Partial<EstimateRow>;
  const money = price === null ? null : minorOf(price.amount, price.currency, 'price');
  return { ...rest, price: money, currency: price?.currency ?? null } as Partial<EstimateRow>;
}
