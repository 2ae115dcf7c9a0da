import type { ActRecord } from '../../../core/workflow/lifecycle.types.ts';
import type { CardMonthState, ChargeState } from '../../../core/workflow/lifecycles/gathering.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import {
  lockCharges,
  lockMonth,
  saveChargeMark,
  selectCharges,
  updateMonth,
  type CardView,
  type ChargeRecord,
} from '../../records/cards/cards.queries.ts';

export const cardMonthFacts = (card: CardView, state: CardMonthState): ActRecord<CardMonthState> => ({
  state,
  entity: card.entity,
  people: { holder: card.holderId },
});

interface MonthKey {
  card: CardView;
  month: string;
}
interface LockedMonth extends LockedRecord<CardMonthState> {
  at: MonthKey;
}

/** A card's month; the card was looked up as one the actor may see. Its history stands under "card/month". */
export const cardMonthStore: RecordStore<CardMonthState, LockedMonth, MonthKey> = {
  async lock(trx, { card, month }) {
    const { state, revision } = await lockMonth(trx, card.id, month);
    return { ...cardMonthFacts(card, state), id: `${card.id}/${month}`, name: month, revision, at: { card, month } };
  },
  save: (trx, { at }, changes) => updateMonth(trx, at.card.id, at.month, changes),
  exists: () => true,
};

interface LockedCharge extends LockedRecord<ChargeState> {
  charge: ChargeRecord;
}

/** A charge with what its holder says of it. */
export const chargeStore: RecordStore<ChargeState, LockedCharge, bigint> = {
  async lock(trx, id) {
    await lockCharges(trx, [String(id)]);
    const [charge] = await selectCharges(trx, { ids: [String(id)] });
    if (!charge) return undefined;
    return {
      id: String(id),
      name: `of ${charge.merchant}`,
      state: charge.marked ? 'claimed already' : 'unmarked',
      revision: charge.markRevision,
      entity: null,
      people: { holder: charge.holderId },
      charge,
    };
  },
  save: (trx, { charge }, { state, revision, reason }) =>
    saveChargeMark(trx, {
      charge_id: charge.id,
      state: state as string,
      revision: revision as number,
      reason: (reason as string | null) ?? null,
    }),
  exists: ({ people }, actor) => people.holder === actor.id,
};
