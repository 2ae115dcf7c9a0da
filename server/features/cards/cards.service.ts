import { reconcileMonth } from '../../../core/evidence/statements/reconcileMonth.ts';
import { cycleDays } from '../../../core/evidence/statements/cardCycle.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { actsOpen } from '../../../core/workflow/judgeAct.ts';
import { cardMonthLifecycle, chargeLifecycle } from '../../../core/workflow/lifecycles/gathering.ts';
import { perform } from '../../platform/acts/perform.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { entitiesOf, hasAny, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Clock } from '../../platform/ports/clock.ts';
import { entityToday } from '../../records/book/postingDate.ts';
import { lockChargesToFree, standingOf, writeCharge } from '../../records/cards/charges.ts';
import {
  lockCharges,
  selectCards,
  selectCharges,
  selectMonths,
  selectStatementsOf,
  type CardView,
} from '../../records/cards/cards.queries.ts';
import { cardMonthFacts, cardMonthStore, chargeStore } from './cards.stores.ts';
import { selectMonth } from './cards.queries.ts';

type Reads = Pick<Context, 'db' | 'clock'>;

/** A person's charges. */
export async function viewCharges({ db }: Reads, actor: Actor) {
  const charges = await selectCharges(db, { holderId: actor.id });
  return { charges: charges.map(writeCharge) };
}

/** The cards a person may look at: their own, and for finance those of their entities. */
const visibleCards = (db: Db, actor: Actor): Promise<CardView[]> =>
  hasAny(actor, FINANCE) ? selectCards(db, actor.id, entitiesOf(actor, FINANCE)) : selectCards(db, actor.id, []);

/** Cards with their months. */
export async function viewCards({ db }: Reads, actor: Actor) {
  const cards = [];
  for (const card of await visibleCards(db, actor))
    cards.push({ ...card, own: card.holderId === actor.id, months: await selectMonths(db, card) });
  return { cards };
}

async function visibleCard(db: Db, actor: Actor, id: string): Promise<CardView> {
  const card = (await visibleCards(db, actor)).find((c) => c.id === id);
  if (!card) throw new Refused('not-found', { what: 'card' });
  return card;
}

/** A card's month with its proof against the statements. */
export async function viewMonth({ db, clock }: Reads, actor: Actor, id: string, month: string) {
  const card = await visibleCard(db, actor, id);
  const { charges, statements, proof } = await proveMonth(db, clock, card, month);
  const kept = await selectMonth(db, id, month);
  const facts = cardMonthFacts(card, kept.state);
  return {
    card,
    month,
    days: daysOf(card, month),
    state: kept.state,
    revision: kept.revision,
    charges: charges.map(writeCharge),
    statements,
    proof,
    closedBy: kept.closedBy,
    closedAt: kept.closedAt,
    may: actsOpen(cardMonthLifecycle, facts, actor, { isOn: () => true }),
  };
}

/** The charges of a card's month, its statements, and whether they come to the same. */
async function proveMonth(db: Db, clock: Clock, card: CardView, month: string) {
  const { id, currency } = card;
  const { from, to } = daysOf(card, month);
  const charges = await selectCharges(db, { card: id, from, to });
  const statements = await selectStatementsOf(db, id, currency, from, to);
  const proof = reconcileMonth(
    currency,
    charges.map((c) => ({
      settled: fromMinor(c.settledAmount, c.settledCurrency),
      accounted: ['on a claim', 'claimed already'].includes(standingOf(c)),
    })),
    statements,
    { from, to, today: await entityToday(db, clock, card.entity) },
  );
  return { charges, statements, proof };
}

function daysOf({ closesOn }: CardView, month: string) {
  if (!/^(19|20|21)\d\d-(0[1-9]|1[0-2])$/.test(month)) throw new Refused('not-found', { what: 'month' });
  return cycleDays(month, closesOn);
}

/** A month of a card, as it was seen. */
export interface SeenMonth {
  card: string;
  month: string;
  revision: number;
}

const actOnMonth = (
  context: Context,
  actor: Actor,
  act: 'close' | 'reopen',
  seen: SeenMonth,
  work: (trx: Db, card: CardView) => Promise<Record<string, unknown>>,
): Promise<void> =>
  inTransaction(context, async (trx) => {
    const card = await visibleCard(trx, actor, seen.card);
    daysOf(card, seen.month);
    const wanted = { lifecycle: cardMonthLifecycle, store: cardMonthStore, act, actor, revision: seen.revision };
    return perform(context, trx, { ...wanted, key: { card, month: seen.month } }, async () => ({
      result: undefined,
      columns: await work(trx, card),
    }));
  });

/** Closes a month that is proved; the holder or finance does it, and either can open it again. */
export const closeMonth = (context: Context, actor: Actor, seen: SeenMonth): Promise<void> =>
  actOnMonth(context, actor, 'close', seen, async (trx, card) => {
    const { charges } = await proveMonth(trx, context.clock, card, seen.month);
    await lockCharges(
      trx,
      charges.map((c) => String(c.id)),
    );
    const { proof } = await proveMonth(trx, context.clock, card, seen.month);
    if (proof.problems.length > 0) throw new Refused('month-open', { problem: `${proof.problems.join('; ')}.` });
    return { closed_by: actor.id, closed_at: context.clock.now() };
  });

/** Opens a closed month again. */
export const reopenMonth = (context: Context, actor: Actor, seen: SeenMonth): Promise<void> =>
  actOnMonth(context, actor, 'reopen', seen, async () => ({ closed_by: null, closed_at: null }));

/** Says of an own charge that it was claimed before, with where; or takes that back. */
export function markCharge(
  context: Context,
  actor: Actor,
  id: bigint,
  { revision, reason }: { revision: number; reason: string | null },
): Promise<void> {
  const act = reason === null ? 'unmark' : 'mark';
  return inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      { lifecycle: chargeLifecycle, store: chargeStore, act, key: id, actor, revision },
      async ({ charge }) => {
        if (reason === null) await lockChargesToFree(trx, [String(id)]);
        const [line] = charge.lines;
        if (reason !== null && line)
          throw new Refused('charge-in-use', { merchant: charge.merchant, state: `on claim ${line.claim}` });
        return { result: undefined, columns: { reason }, words: reason === null ? null : { reason } };
      },
    ),
  );
}
