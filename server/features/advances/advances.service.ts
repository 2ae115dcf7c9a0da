import type { AdvanceSet, BeginAdvance } from '../../../contract/advances.ts';
import { advanceLifecycle, type AdvanceAct } from '../../../core/workflow/lifecycles/advance.ts';
import { performBirth } from '../../platform/acts/perform.ts';
import type { Outcome } from '../../platform/acts/acts.types.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { actOnAdvance, type LockedAdvance, type SeenAdvance } from '../../records/advances/advanceStore.ts';
import { insertAdvance, updateAdvance } from '../../records/advances/advances.queries.ts';
import { routedAdvance, routedAdvanceKey } from '../../records/advances/routedAdvance.ts';
import { removeAttachment } from '../../records/attachments/attachments.queries.ts';
import { attach, takeFile, type SentFile } from '../../records/attachments/takeFile.ts';
import { currentBook } from '../../records/book/sharedBook.ts';
import { selectPeriods } from '../../records/book/periods.queries.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { selectPerson } from '../../records/people/people.queries.ts';
import { selectPlan } from '../../records/plans/plans.queries.ts';
import { beginRoute, endRoute } from '../../records/routing/decide.ts';
import { routeOf } from '../../records/routing/routeOf.ts';
import { judge, refuseProblems } from './judge.ts';

/** Writes an advance of one's own down; its number. Those of the demo have numbers of their own. */
export const beginAdvance = (
  context: Context,
  actor: Actor,
  begin: BeginAdvance & { number?: string },
): Promise<{ number: string }> =>
  inTransaction(context, async (trx) => {
    const person = (await selectPerson(trx, actor.id))!;
    const birth = { lifecycle: advanceLifecycle, act: 'begin', actor, entity: person.entity_id } as const;
    return performBirth(context, trx, { ...birth, people: { claimant: person.id } }, async () => {
      const written = {
        ...{ person_id: person.id, entity_id: person.entity_id },
        ...{ kind: begin.kind, purpose: begin.purpose, currency: begin.currency },
        amount: minorOf(begin.amount, begin.currency, 'amount'),
        ...{ trip_from: begin.from ?? null, trip_to: begin.to ?? null, exception: begin.exception || null },
        plan_id: await planOf(trx, person, begin.plan ?? null, 'plan'),
      };
      const problems = await judge(trx, { ...written, id: null }, await todayOf(context, trx, person.entity_id));
      refuseProblems(problems, 'an exception can still be asked for');
      const number = await insertAdvance(trx, { ...written, ...(begin.number ? { id: begin.number } : {}) });
      await updateAdvance(trx, number, { problems: JSON.stringify(problems) });
      return { id: number, state: 'draft', result: { number }, facts: { kind: begin.kind } };
    });
  });

/** A plan of the person's own that is agreed to or being decided about. */
async function planOf(
  trx: Db,
  person: { id: string; entity_id: string },
  number: string | null,
  path: string,
): Promise<bigint | null> {
  if (number === null) return null;
  const plan = await selectPlan(trx, number);
  if (plan?.claimant_id !== person.id || plan.entity_id !== person.entity_id)
    throw new Refused('not-found', { what: 'plan' });
  if (!['with approver', 'approved'].includes(plan.state))
    throw invalid({ path: [path], message: 'is no plan that is approved or being decided about' });
  return plan.id;
}

const todayOf = async ({ clock }: Pick<Context, 'clock'>, trx: Db, entity: string): Promise<string> =>
  today(clock, (await selectPeriods(trx, entity)).timeZone);

const act = <Result>(
  context: Context,
  actor: Actor,
  name: AdvanceAct,
  seen: SeenAdvance,
  work: (trx: Db, advance: LockedAdvance) => Promise<Outcome<Result>>,
): Promise<Result> =>
  inTransaction(context, (trx) =>
    actOnAdvance(context, trx, { act: name, advance: seen, actor }, (advance) => work(trx, advance)),
  );

/** Changes what is asked for; the rules are looked at again. */
export const editAdvance = (context: Context, actor: Actor, seen: SeenAdvance, set: AdvanceSet): Promise<void> =>
  act(context, actor, 'edit', seen, async (trx, { row }) => {
    const {
      kind = row.kind,
      purpose = row.purpose,
      from = row.trip_from,
      to = row.trip_to,
      currency = row.currency,
    } = set;
    if (from && to && to < from) throw invalid({ path: ['set', 'to'], message: 'is before the first day' });
    const amount = set.amount === undefined ? row.amount : minorOf(set.amount, currency, 'set.amount');
    const plan_id =
      set.plan === undefined
        ? row.plan_id
        : await planOf(trx, { id: row.person_id, entity_id: row.entity_id }, set.plan, 'set.plan');
    const exception = set.exception === undefined ? row.exception : set.exception || null;
    const columns = { kind, purpose, currency, amount, trip_from: from, trip_to: to, plan_id, exception };
    const problems = await judge(trx, { ...row, ...columns }, await todayOf(context, trx, row.entity_id));
    return {
      result: undefined,
      columns: { ...columns, requested: amount, problems: JSON.stringify(problems) },
      facts: { fields: Object.keys(set) },
    };
  });

/** Asks for an advance: what the rules say against it needs a reason; then it goes on its route. */
export const requestAdvance = (context: Context, actor: Actor, seen: SeenAdvance): Promise<void> =>
  act(context, actor, 'request', seen, async (trx, { row }) => {
    const on = await todayOf(context, trx, row.entity_id);
    const problems = await judge(trx, row, on);
    refuseProblems(problems, row.exception);
    const { content } = await currentBook(trx, row.entity_id);
    const route = await routeOf(trx, routedAdvance(row, content.entities[0]!.currency, on));
    const record = { key: routedAdvanceKey(row), approvers: row.approvers };
    const routed = await beginRoute(trx, record, route, context.clock.now());
    return {
      result: undefined,
      columns: { ...routed, requested_on: on, problems: JSON.stringify(problems) },
      facts: { goesTo: routed.deciders },
    };
  });

/** Takes a request back to change it before it is sent again: nobody is asked any more. */
export const callBackAdvance = (context: Context, actor: Actor, seen: SeenAdvance): Promise<void> =>
  act(context, actor, 'callBack', seen, async (trx, { row }) => ({
    result: undefined,
    columns: await endRoute(trx, routedAdvanceKey(row)),
  }));

/** Takes a request up again that was ended, as it was asked for; it is decided about anew. */
export const bringBackAdvance = (context: Context, actor: Actor, seen: SeenAdvance): Promise<void> =>
  act(context, actor, 'bringBack', seen, async (_, { row }) => ({
    result: undefined,
    columns: { amount: row.requested },
  }));

/** Ends a request as long as nothing was paid out. */
export const withdrawAdvance = (context: Context, actor: Actor, seen: SeenAdvance): Promise<void> =>
  act(context, actor, 'withdraw', seen, async (trx, { row }) => ({
    result: undefined,
    columns: await endRoute(trx, routedAdvanceKey(row)),
  }));

export async function attachToAdvance(
  services: Services,
  actor: Actor,
  seen: SeenAdvance,
  sent: SentFile,
): Promise<void> {
  const file = await takeFile(services, actor, sent);
  await act(services, actor, 'edit', seen, async (trx, { row }) => {
    await attach(services, trx, actor, { advance_id: row.id }, file);
    return { result: undefined, facts: { fields: ['attachments'] } };
  });
}

export const detachFromAdvance = (context: Context, actor: Actor, seen: SeenAdvance, id: bigint): Promise<void> =>
  act(context, actor, 'edit', seen, async (trx, { row }) => {
    if (!(await removeAttachment(trx, { advance_id: row.id }, id)))
      throw new Refused('not-found', { what: 'attachment' });
    return { result: undefined, facts: { fields: ['attachments'] } };
  });
