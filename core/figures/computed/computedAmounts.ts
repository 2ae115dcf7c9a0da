import type { Item, Line } from '../../documents/case.schema.ts';
import { fromMinor, minorPerMajor, sumKnown, toMinor } from '../../numbers/amount.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { times } from '../../numbers/fraction.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';
import { dailyAllowance } from '../allowance/dailyAllowance.ts';
import { mileage } from '../allowance/mileage.ts';
import type { OpenCase } from '../figures.types.ts';

/** What the amount of a line or item has to be by the facts it carries, in minor units of the line's currency. */
export interface ComputedAmount {
  item: string | null;
  /** Null where the book has no rate in that currency. */
  computed: bigint | null;
  /** What it is computed from, in words: "3 × 33.50", "120 km by car". */
  from: string;
}

/**
 * Count × unit price as an amount of a currency, rounded once. Example: {count: "3", unitPrice: "33.333333"}, "EUR" →
 * "100.00".
 */
export function quantityAmount({ count, unitPrice }: NonNullable<Line['quantity']>, currency: string): string {
  const exact = times(decimalToFraction(count), decimalToFraction(unitPrice));
  return fromMinor(roundHalfAway(exact.n * minorPerMajor(currency), exact.d), currency);
}

type Source = Pick<Line | Item, 'quantity'> & Partial<Pick<Line, 'journey' | 'stay'>>;

/**
 * The amounts of a line that are computed, never typed: count × unit price (rule 29), mileage (27), daily allowances (28),
 * each rounded as its rule says. Example: 3 × 33.333333 EUR → 10000n.
 */
export function computedAmounts(open: OpenCase, line: Line): ComputedAmount[] {
  const items = (line.items ?? []).map((item) => ({ item: item.id, source: item as Source }));
  return [{ item: null, source: line as Source }, ...items].flatMap(({ item, source }) => {
    const found = computedOf(open, line, source);
    return found ? [{ item, ...found }] : [];
  });
}

function computedOf({ case: { book } }: OpenCase, line: Line, source: Source): Omit<ComputedAmount, 'item'> | null {
  const { quantity, journey, stay } = source;
  if (quantity) {
    return {
      computed: toMinor(quantityAmount(quantity, line.currency), line.currency),
      from: `${quantity.count} × ${quantity.unitPrice}`,
    };
  }
  if (journey) {
    const found = mileage({ ...journey, date: line.date }, book.mileageRates ?? []);
    return {
      computed: found?.currency === line.currency ? toMinor(found.amount, line.currency) : null,
      from: `${journey.distance} ${journey.unit} by ${journey.vehicle}`,
    };
  }
  if (!stay) return null;
  const { days } = dailyAllowance(stay, book.allowanceRates ?? []);
  const amounts = days.map((d) => (d.currency === line.currency ? toMinor(d.amount!, line.currency) : null));
  return {
    computed: sumKnown(amounts),
    from: days.length === 1 ? 'the allowance of a day' : `allowances of ${days.length} days`,
  };
}
