import { referenceConverter } from '../../../core/figures/currency/converter.ts';
import { rateTable } from '../../../core/figures/currency/rateTable.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import type { Side } from '../../../core/evidence/matching/matching.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { MAX_RATE_AGE, PIVOT, selectRates } from '../../records/book/book.queries.ts';

interface Stated {
  amount: bigint | null;
  currency: string | null;
  date: string | null;
}

/**
 * Adds to a side what its amount comes to, at the published rate of its day, in the currencies of charges of which the
 * bank tells no other: only so such a charge can be seen to be the same spending.
 */
export async function estimatesIn(
  db: Db,
  stated: readonly Stated[],
  charges: readonly { currency: string; settledCurrency: string }[],
): Promise<(side: Side) => Side> {
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
      const minor = to === currency ? null : referenceConverter(rates, currency, to, date).convert(amount);
      return minor === null ? [] : [{ amount: minor, currency: to }];
    });
    return { ...side, estimates };
  };
}
