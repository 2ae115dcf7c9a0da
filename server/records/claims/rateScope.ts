import type { Claim } from '../../../core/documents/case.schema.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { MAX_RATE_AGE, PIVOT, type RateScope } from '../book/book.queries.ts';

/**
 * Which quotes a claim can need: between every currency something of it is stated in (`others`: the ledger's and those of
 * its advances) and the pivot, from the oldest quote that could still count for its first date to its last date. A line's,
 * the submission's and the posting's date all count. One currency alone needs none.
 */
export function rateScope(
  { currency, lines, submittedOn }: Pick<Claim, 'currency' | 'lines' | 'submittedOn'>,
  others: readonly string[],
  postingDate: string,
): RateScope {
  const dates = [...lines.map((l) => l.date), submittedOn ?? postingDate, postingDate].sort();
  const stated = lines.flatMap((l) => [l.currency, ...(l.rate?.kind === 'card' ? [l.rate.settled.currency] : [])]);
  const used = new Set([currency, ...stated, ...others]);
  const currencies = used.size > 1 ? [...new Set([...used, PIVOT])] : [];
  return { currencies, from: addDays(dates[0]!, -MAX_RATE_AGE), to: dates.at(-1)! };
}
