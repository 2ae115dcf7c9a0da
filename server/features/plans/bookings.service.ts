import type { BookingSet, NewBookingSaid } from '../../../contract/plans.ts';
import type { PlanAct } from '../../../core/workflow/lifecycles/planned.ts';
import { readAmount } from '../../../core/numbers/amount.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { removeAttachment, type AttachedTo } from '../../records/attachments/attachments.queries.ts';
import { attach, takeFile, type SentFile } from '../../records/attachments/takeFile.ts';
import {
  deleteBooking,
  insertBooking,
  selectBooking,
  updateBooking,
  type BookingRow,
} from '../../records/plans/bookings.queries.ts';
import { actOnPlan, type LockedPlan, type SeenPlan } from '../../records/plans/planStore.ts';
import { selectClaimOfPlan, selectEstimates } from '../../records/plans/plans.queries.ts';

/** Records what was offered for an approved plan, perhaps with what was taken of it. */
export const addBooking = (context: Context, actor: Actor, seen: SeenPlan, said: NewBookingSaid): Promise<void> =>
  book(context, actor, seen, async (trx, { row }) => {
    const { paidBy, estimate, chosen, ...rest } = said;
    await assertSaid(trx, row.id, said);
    const by = { by_id: actor.id, at: context.clock.now() };
    await insertBooking(trx, { plan_id: row.id, estimate, chosen, paid_by: paidBy, ...rest, ...by });
  });

/** Changes what a booking says: what was taken, its confirmation. */
export const editBooking = (
  context: Context,
  actor: Actor,
  seen: SeenPlan,
  id: bigint,
  set: BookingSet,
): Promise<void> =>
  book(context, actor, seen, async (trx, { row }) => {
    const before = await bookingOf(trx, row.id, id);
    const { paidBy: paid_by = before.paid_by, ...rest } = set;
    const after = { ...before, ...rest, paid_by };
    await assertSaid(trx, row.id, { ...after, paidBy: after.paid_by });
    await updateBooking(trx, row.id, id, { ...rest, paid_by });
  });

export const removeBooking = (context: Context, actor: Actor, seen: SeenPlan, id: bigint): Promise<void> =>
  book(context, actor, seen, async (trx, { row }) => {
    await bookingOf(trx, row.id, id);
    await deleteBooking(trx, row.id, id);
  });

/** Adds a file to a booking: its confirmation, its ticket. */
export async function attachToBooking(
  services: Services,
  actor: Actor,
  seen: SeenPlan,
  id: bigint,
  sent: SentFile,
): Promise<void> {
  const file = await takeFile(services, actor, sent);
  await book(services, actor, seen, async (trx, { row }) => {
    await bookingOf(trx, row.id, id);
    await attach(services, trx, actor, { booking_id: id }, file);
  });
}

/** Adds a file to a plan in preparation. */
export async function attachToPlan(services: Services, actor: Actor, seen: SeenPlan, sent: SentFile): Promise<void> {
  const file = await takeFile(services, actor, sent);
  await act(services, actor, 'edit', seen, 'attachments', (trx, { row }) =>
    attach(services, trx, actor, { plan_id: row.id }, file),
  );
}
export const detachFromPlan = (context: Context, actor: Actor, seen: SeenPlan, id: bigint): Promise<void> =>
  act(context, actor, 'edit', seen, 'attachments', (trx, { row }) => detach(trx, { plan_id: row.id }, id));
export const detachFromBooking = (
  context: Context,
  actor: Actor,
  seen: SeenPlan,
  booking: bigint,
  id: bigint,
): Promise<void> =>
  book(context, actor, seen, async (trx, { row }) => {
    await bookingOf(trx, row.id, booking);
    await detach(trx, { booking_id: booking }, id);
  });

async function detach(trx: Db, from: AttachedTo, id: bigint): Promise<void> {
  if (!(await removeAttachment(trx, from, id))) throw new Refused('not-found', { what: 'attachment' });
}

async function bookingOf(trx: Db, planId: bigint, id: bigint): Promise<BookingRow> {
  const booking = await selectBooking(trx, planId, id);
  if (!booking) throw new Refused('not-found', { what: 'booking' });
  return booking;
}

type Said = Pick<NewBookingSaid, 'estimate' | 'options' | 'chosen' | 'paidBy'>;
/** An estimate that is there, prices in whole minor units, and a choice among the options. */
async function assertSaid(trx: Db, planId: bigint, { estimate, options, chosen }: Said): Promise<void> {
  if (estimate !== null && !(await selectEstimates(trx, planId)).some((e) => e.id === estimate))
    throw new Refused('not-found', { what: 'estimate' });
  const odd = options.findIndex((o) => readAmount(o.amount, o.currency) === null);
  if (odd >= 0)
    throw invalid({ path: ['options', odd, 'amount'], message: `is no amount in ${options[odd]!.currency}` });
  if (chosen !== null && chosen >= options.length)
    throw invalid({ path: ['chosen'], message: 'is none of the options' });
}

/** A plan that became a claim is booked no more: the claim has its lines. */
const book = (
  context: Context,
  actor: Actor,
  seen: SeenPlan,
  work: (trx: Db, plan: LockedPlan) => Promise<void>,
): Promise<void> =>
  act(context, actor, 'book', seen, 'bookings', async (trx, plan) => {
    const claim = await selectClaimOfPlan(trx, plan.row.number);
    if (claim !== null) throw new Refused('plan-claimed', { plan: plan.row.number, claim });
    await work(trx, plan);
  });

const act = (
  context: Context,
  actor: Actor,
  name: PlanAct,
  seen: SeenPlan,
  field: string,
  work: (trx: Db, plan: LockedPlan) => Promise<void>,
): Promise<void> =>
  inTransaction(context, (trx) =>
    actOnPlan(context, trx, { act: name, plan: seen, actor }, async (plan) => {
      await work(trx, plan);
      return { result: undefined, facts: { fields: [field] } };
    }),
  );
