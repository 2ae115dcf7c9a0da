import { daysBetween } from '../../numbers/isoDate.ts';
import type { Book, Quote } from '../../documents/case.schema.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { fraction, ONE, over, times, type Fraction } from '../../numbers/fraction.ts';

/** One leg of a rate: the quote it came from, and whether the quote was turned round. */
export interface RateLeg {
  quote: Quote;
  reciprocal: boolean;
}
/** 1 unit of the source currency = `value` units of the target, exactly; no legs when both are the same. */
export interface Rate {
  value: Fraction;
  legs: RateLeg[];
}
/** Published rates, looked up by pair and date. */
export interface RateTable {
  /** The rate from one currency to another for a date, or null when the book has none that is young enough. */
  find(from: string, to: string, date: string): Rate | null;
}

const MAX_AGE = 7;

/**
 * Indexes the quotes of a book. A lookup takes a direct quote, else the reciprocal, else two legs over the pivot; of
 * each pair the newest quote not after the date and at most `maxRateAge` days old. Nothing is rounded. EUR to USD 1.25
 * only → USD to EUR 0.8, marked reciprocal.
 */
export function rateTable(book: Pick<Book, 'rates' | 'pivot' | 'maxRateAge'>): RateTable {
  const newestFirst = indexQuotes(book.rates);
  const maxAge = book.maxRateAge ?? MAX_AGE;
  const memo = new Map<string, Rate | null>();

  const quote = (from: string, to: string, date: string): Quote | null => {
    const found = newestFirst.get(from + to)?.find((q) => q.date <= date);
    return found && daysBetween(found.date, date) <= maxAge ? found : null;
  };
  const leg = (from: string, to: string, date: string): Rate | null => {
    const direct = quote(from, to, date);
    if (direct) return { value: decimalToFraction(direct.rate), legs: [{ quote: direct, reciprocal: false }] };
    const inverse = quote(to, from, date);
    if (!inverse) return null;
    return { value: over(ONE, decimalToFraction(inverse.rate)), legs: [{ quote: inverse, reciprocal: true }] };
  };
  const resolve = (from: string, to: string, date: string): Rate | null => {
    if (from === to) return { value: fraction(1n), legs: [] };
    const pivot = book.pivot;
    return leg(from, to, date) ?? (pivot ? join(leg(from, pivot, date), leg(pivot, to, date)) : null);
  };
  return {
    find(from, to, date) {
      const key = from + to + date;
      let rate = memo.get(key);
      if (rate === undefined) memo.set(key, (rate = resolve(from, to, date)));
      return rate;
    },
  };
}

function join(first: Rate | null, second: Rate | null): Rate | null {
  if (!first || !second) return null;
  return { value: times(first.value, second.value), legs: [...first.legs, ...second.legs] };
}

function indexQuotes(quotes: readonly Quote[]): Map<string, Quote[]> {
  const index = new Map<string, Quote[]>();
  for (const quote of quotes) {
    const pair = quote.from + quote.to;
    const list = index.get(pair);
    if (list) list.push(quote);
    else index.set(pair, [quote]);
  }
  for (const list of index.values()) list.sort((a, b) => (a.date < b.date ? 1 : -1));
  return index;
}
