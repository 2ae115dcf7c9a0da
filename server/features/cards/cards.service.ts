import { reconcileMonth } from '../../../core/evidence/statements/reconcileMonth.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { FINANCE, hasAny, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { inTransaction } from '../claims/access.ts';
import {
  deleteChargeMark,
  deleteClosedMonth,
  insertClosedMonth,
  lockCharges,
  selectCards,
  selectCharges,
  selectClosedMonthOf,
  selectMonths,
  selectStatementsOf,
  upsertChargeMark,
  type CardView,
  type ChargeRecord,
} from './cards.queries.ts';

export type ChargeState = 'open' | 'partly on claims' | 'on a claim' | 'claimed already';

/** Where a charge stands: nothing of it, part of it or all of it is on lines, or somebody said it was claimed before. */
export function stateOf(charge: ChargeRecord): ChargeState {
  if (charge.mark) return 'claimed already';
  if (charge.lines.length === 0) return 'open';
  return leftOf(charge) === 0n ? 'on a claim' : 'partly on claims';
}

/** What of a charge is on no line, in the currency of the purchase. Lines in the settled currency stand for all of it. */
export function leftOf({ amount, currency, lines }: ChargeRecord): bigint {
  if (lines.some((l) => l.currency !== currency)) return 0n;
  return amount - lines.reduce((a, l) => a + BigInt(l.amount), 0n);
}

export const writeCharge = (charge: ChargeRecord) => ({
  id: charge.id,
  card: charge.card,
  label: charge.label,
  cardKind: charge.cardKind,
  holder: charge.holder,
  bookedOn: charge.bookedOn,
  purchasedOn: charge.purchasedOn,
  amount: fromMinor(charge.amount, charge.currency),
  currency: charge.currency,
  settled: { amount: fromMinor(charge.settledAmount, charge.settledCurrency), currency: charge.settledCurrency },
  merchant: charge.merchant,
  country: charge.country,
  categoryCode: charge.categoryCode,
  category: charge.category,
  state: stateOf(charge),
  reason: charge.reason,
  left: fromMinor(leftOf(charge), charge.currency),
  lines: charge.lines.map((l) => ({
    claim: l.claim,
    line: l.line,
    state: l.state,
    personal: l.personal,
    amount: fromMinor(BigInt(l.amount), l.currency),
    currency: l.currency,
  })),
});

/** A person's charges. */
export async function viewCharges({ db }: Context, actor: Actor) {
  const charges = await selectCharges(db, { holderId: actor.id });
  return { charges: charges.map(writeCharge) };
}

/** Cards with their months: a holder's own, all for finance. */
export async function viewCards({ db }: Context, actor: Actor) {
  const cards = await selectCards(db, hasAny(actor, FINANCE) ? null : actor.id);
  const months = [];
  for (const card of cards)
    months.push({ ...card, own: card.holderId === actor.id, months: await selectMonths(db, card.id) });
  return { cards: months };
}

async function visibleCard({ db }: Context, actor: Actor, id: string): Promise<CardView> {
  const card = (await selectCards(db, hasAny(actor, FINANCE) ? null : actor.id)).find((c) => c.id === id);
  if (!card) throw new Refused('not-found', { what: 'card' });
  return card;
}

/** A card's month with its proof against the statements. */
export async function viewMonth(context: Context, actor: Actor, id: string, month: string) {
  const card = await visibleCard(context, actor, id);
  const [from, to] = daysOf(month);
  const charges = await selectCharges(context.db, { card: id, from, to });
  const statements = await selectStatementsOf(context.db, id, card.currency, from, to);
  const proof = reconcileMonth(
    card.currency,
    charges.map((c) => ({
      settled: fromMinor(c.settledAmount, c.settledCurrency),
      accounted: ['on a claim', 'claimed already'].includes(stateOf(c)),
    })),
    statements,
  );
  const closed = (await selectMonths(context.db, id)).find((m) => m.month === month);
  return {
    card,
    month,
    charges: charges.map(writeCharge),
    statements,
    proof,
    closedBy: closed?.closedBy ?? null,
    closedAt: closed?.closedAt ?? null,
  };
}

function daysOf(month: string): [string, string] {
  if (!/^\d{4}-(0[1-9]|1[0-2])$/.test(month)) throw new Refused('not-found', { what: 'month' });
  const from = `${month}-01`;
  return [from, addDays(`${addDays(from, 31).slice(0, 7)}-01`, -1)];
}

function assertKeeper(card: CardView, actor: Actor): void {
  if (card.holderId !== actor.id && !hasAny(actor, ['reviewer', 'controller']))
    throw new Refused('not-allowed', { needs: 'the holder, reviewer or controller' });
}

/** Closes a month that is proved; the holder or finance does it, and either can open it again. */
export async function closeMonth(context: Context, actor: Actor, id: string, month: string): Promise<void> {
  await inTransaction(context, async (trx) => {
    const inside = { ...context, db: trx };
    const { charges } = await viewMonth(inside, actor, id, month);
    await lockCharges(
      trx,
      charges.map((c) => String(c.id)),
    );
    const { proof, card } = await viewMonth(inside, actor, id, month);
    assertKeeper(card, actor);
    if (proof.problems.length > 0) throw new Refused('month-open', { problem: `${proof.problems.join('; ')}.` });
    await insertClosedMonth(trx, { card_id: id, month, closed_by: actor.id, closed_at: context.clock.now() });
  });
}

/** Locks charges that are about to lose their line or mark, and refuses where their card's month is closed. */
export async function lockChargesToFree(trx: Db, ids: readonly string[]): Promise<void> {
  await lockCharges(trx, ids);
  const closed = await selectClosedMonthOf(trx, ids);
  if (closed) throw new Refused('month-closed', closed);
}
export async function reopenMonth(context: Context, actor: Actor, id: string, month: string): Promise<void> {
  assertKeeper(await visibleCard(context, actor, id), actor);
  await deleteClosedMonth(context.db, id, month);
}

/** Says of an own charge that it was claimed before, with where; or takes that back. */
export async function markCharge(context: Context, actor: Actor, id: bigint, reason: string | null): Promise<void> {
  await inTransaction(context, async (trx) => {
    await (reason === null ? lockChargesToFree : lockCharges)(trx, [String(id)]);
    const [charge] = await selectCharges(trx, { holderId: actor.id, ids: [String(id)] });
    if (!charge) throw new Refused('not-found', { what: 'charge' });
    if (reason === null) return deleteChargeMark(trx, id);
    if (charge.lines.length > 0)
      throw new Refused('charge-in-use', { merchant: charge.merchant, state: `on claim ${charge.lines[0]!.claim}` });
    return upsertChargeMark(trx, {
      charge_id: id,
      mark: 'claimed already',
      reason,
      by_id: actor.id,
      at: context.clock.now(),
    });
  });
}
