import { referenceConverter } from '../../../core/figures/currency/converter.ts';
import { rateTable } from '../../../core/figures/currency/rateTable.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { byBankRate } from '../../../core/evidence/matching/bankRates.ts';
import type { Side } from '../../../core/evidence/matching/matching.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { ChargeRecord } from '../../records/cards/cards.queries.ts';
import { MAX_RATE_AGE, PIVOT, selectRates } from '../../records/book/book.queries.ts';

interface Stated {
  amount: bigint | null;
  currency: string | null;
  date: string | null;
}

/**
 * Adds to a side what its amount comes to, at the published rate of its day, in the currencies of charges of which the
 * bank tells no other: only so such a charge can be seen to be the same spending. Where no rate is published, by what the bank
 * itself took for others of the person's charges.
 */
export async function estimatesIn(
  db: Db,
  stated: readonly Stated[],
  charges: readonly { currency: string; settledCurrency: string }[],
  all: readonly ChargeRecord[],
): Promise<(side: Side) => Side> {
  const settled = all
    .filter((c) => c.currency !== c.settledCurrency)
    .map((c) => ({ ...c, date: c.purchasedOn ?? c.bookedOn }));
  const wanted = [...new Set(charges.filter((c) => c.currency === c.settledCurrency).map((c) => c.currency))];
  const dates = stated.flatMap((s) => s.date ?? []).sort();
  const currencies = [...new Set([...wanted, PIVOT, ...stated.flatMap((s) => s.currency ?? [])])];
  if (wanted.length === 0 || dates.length === 0) return (side) => side;
  const scope = { currencies, from: addDays(dates[0]!, -MAX_RATE_AGE), to: dates.at(-1)! };
  const rates = rateTable({ rates: await selectRates(db, scope), pivot: PIVOT, maxRateAge: MAX_RATE_AGE });
  return (side) => {
    const { amount, currency, date } = side;
    if (amount === null || currency === null || date === null) return side;
    const estimates = wanted.flatMap((to) => {
      if (to === currency) return [];
      const minor = referenceConverter(rates, currency, to, date).convert(amount);
      return minor === null
        ? (byBankRate(settled, { amount, currency, date }, to) ?? [])
        : [{ amount: minor, currency: to }];
    });
    return { ...side, estimates };
  };
}
