import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { lockCharges, selectClosedMonthOf, type ChargeRecord } from './cards.queries.ts';

export const CHARGE_STANDINGS = ['open', 'partly on claims', 'on a claim', 'claimed already'] as const;
export type ChargeStanding = (typeof CHARGE_STANDINGS)[number];

/** Where a charge stands: nothing of it, part of it or all of it is on lines, or somebody said it was claimed before. */
export function standingOf(charge: ChargeRecord): ChargeStanding {
  if (charge.marked) return 'claimed already';
  if (charge.lines.length === 0) return 'open';
  return leftOf(charge) === 0n ? 'on a claim' : 'partly on claims';
}

/** What of a charge is on no line, in the currency of the purchase. Lines in the settled currency stand for all of it. */
export function leftOf({ amount, currency, lines }: ChargeRecord): bigint {
  if (lines.some((l) => l.currency !== currency)) return 0n;
  return amount - lines.reduce((a, l) => a + BigInt(l.amount), 0n);
}

/** A charge as it is shown to its holder and to finance. */
export const writeCharge = (charge: ChargeRecord) => ({
  id: String(charge.id),
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
  state: standingOf(charge),
  revision: charge.markRevision,
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

/** Locks charges that are about to lose their line or mark, and refuses where their card's month is closed. */
export async function lockChargesToFree(trx: Db, ids: readonly string[]): Promise<void> {
  await lockCharges(trx, ids);
  const closed = await selectClosedMonthOf(trx, ids);
  if (closed) throw new Refused('month-closed', closed);
}
