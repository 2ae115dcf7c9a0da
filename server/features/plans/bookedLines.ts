import type { Line } from '../../../core/documents/case.schema.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectAttached } from '../../records/attachments/attachments.queries.ts';
import { selectBookings, type BookingRow } from '../../records/plans/bookings.queries.ts';
import { selectEstimates, type PlanRow } from '../../records/plans/plans.queries.ts';
import { selectReceipt } from '../../records/receipts/receipts.queries.ts';
import { storeReceipt } from '../../records/receipts/storeReceipt.ts';

/**
 * The lines with which the claim of a plan begins: one for each booking of which an option was taken, paid by card or
 * centrally, with the first of its files as its receipt.
 */
export async function bookedLines(
  context: Context,
  trx: Db,
  actor: Actor,
  plan: PlanRow,
): Promise<{ line: Line; receipt: bigint | null }[]> {
  const estimates = new Map((await selectEstimates(trx, plan.id)).map((e) => [e.id, e]));
  const taken = (await selectBookings(trx, plan.id)).filter((b) => b.chosen !== null);
  const lines: { line: Line; receipt: bigint | null }[] = [];
  for (const [i, booking] of taken.entries()) {
    const estimate = booking.estimate === null ? undefined : estimates.get(booking.estimate);
    const { says, amount, currency } = booking.options[booking.chosen!]!;
    const line: Line = {
      id: String(i + 1),
      date: booking.date,
      category: estimate?.category ?? null,
      estimate: estimate?.id ?? null,
      coding: estimate?.coding ?? {},
      paidBy: booking.paid_by,
      amount,
      currency,
      merchant: says,
      description: [booking.what, booking.confirmation].filter(Boolean).join(', ').slice(0, 300),
    };
    lines.push({ line, receipt: await receiptOf(context, trx, actor, plan, booking) });
  }
  return lines;
}

/** The first file of a booking as a receipt of the traveller's; none where that paper is on another claim already. */
async function receiptOf(
  context: Context,
  trx: Db,
  actor: Actor,
  plan: PlanRow,
  booking: BookingRow,
): Promise<bigint | null> {
  const [first] = await selectAttached(trx, { booking_id: booking.id });
  if (!first) return null;
  const paper = { ...first, cameIn: null, bytes: Buffer.alloc(0), file: null };
  const { id } = await storeReceipt(context, trx, { owner: plan.claimant_id, actor }, paper);
  return (await selectReceipt(trx, id))?.usedOn.length ? null : id;
}
