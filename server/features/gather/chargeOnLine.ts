import type { ChargeRecord } from '../../records/cards/cards.queries.ts';
import type { DraftLine } from './gather.queries.ts';

/** The columns of a line that a charge paid. */
export const paidBy = (charge: ChargeRecord) => ({
  charge_id: charge.id,
  paid_by: 'card',
  card: charge.card,
  rate_kind: 'card',
  rate_value: null,
  settled_amount: charge.settledAmount,
  settled_currency: charge.settledCurrency,
});

/** What a line said of its payment before it had a charge, so that undoing brings it back. */
export const stateBefore = (l: DraftLine) => ({
  paid_by: l.paid_by,
  card: l.card,
  amount: String(l.amount),
  currency: l.currency,
  rate_kind: l.rate_kind,
  rate_value: l.rate_value,
  settled_amount: l.settled_amount === null ? null : String(l.settled_amount),
  settled_currency: l.settled_currency,
});
