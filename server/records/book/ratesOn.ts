import { rateTable, type RateTable } from '../../../core/figures/currency/rateTable.ts';
import type { Quote } from '../../../core/documents/case.schema.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import type { Db } from '../../platform/db/connect.ts';
import { MAX_RATE_AGE, PIVOT, selectRates } from './book.queries.ts';

/** The published quotes between some currencies that count for a day; none where there is but one currency. */
export const quotesOn = (db: Db, currencies: readonly string[], on: string): Promise<Quote[]> => {
  const used = new Set(currencies);
  return selectRates(db, {
    currencies: used.size > 1 ? [...new Set([...used, PIVOT])] : [],
    from: addDays(on, -MAX_RATE_AGE),
    to: on,
  });
};

/** The same as a table to convert by. */
export const ratesOn = async (db: Db, currencies: readonly string[], on: string): Promise<RateTable> =>
  rateTable({ rates: await quotesOn(db, currencies, on), pivot: PIVOT, maxRateAge: MAX_RATE_AGE });
