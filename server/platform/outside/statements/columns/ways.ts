import type { Mapping } from '../../../../../contract/statements.ts';
import type { Told } from './told.ts';

/** Where so many or more of the amounts have a minus, or so few, it is told what a minus means; between them it is not. */
const MOST = 0.65;

/** How the table writes its dates, decimals and what was spent, as far as its rows tell. */
export function waysOf(
  told: readonly Told[],
  { date, purchased, amount, credit, side, originalAmount }: Partial<Mapping>,
) {
  const ways: Partial<Mapping> = {};
  const days = [date, purchased].flatMap((at) => (typeof at === 'number' && told[at]?.filled ? [told[at]] : []));
  const orders = days.reduce<Mapping['order'][]>(
    (left, { orders: o }) => left.filter((x) => o.includes(x)),
    ['dmy', 'mdy', 'ymd'],
  );
  if (days.length > 0 && (orders.length === 1 || days.every((d) => d.named))) ways.order = orders[0] ?? 'dmy';
  const [amounts, credits] = [told[amount as number], told[credit as number]];
  if (!amounts) return ways;
  const mark =
    [amounts, credits, told[originalAmount as number]].find((t) => t?.mark)?.mark
    ?? (amounts.bare && (!credits || credits.bare) ? '.' : null);
  if (mark) ways.mark = mark;
  const spent = signOfSpent(amounts, credits, typeof side === 'number');
  if (spent) ways.spent = spent;
  return ways;
}

function signOfSpent(amounts: Told, credits: Told | undefined, marked: boolean): Mapping['spent'] | null {
  if ((credits || marked) && amounts.minus === 0) return 'positive';
  if (credits) return amounts.minus === amounts.filled ? 'negative' : null;
  const share = amounts.minus / Math.max(amounts.filled, 1);
  return share >= MOST ? 'negative' : share <= 1 - MOST ? 'positive' : null;
}

/**
 * A mapping that was kept for a table with the same headings, without what its rows contradict now: days that cannot be in that
 * order, another mark before the decimals, another sign of what was spent. That is left for the person. Example: day first was
 * kept, and 03/25/2026 stands there → no order.
 */
export function notContradicted(kept: Mapping, told: readonly Told[]): Partial<Mapping> {
  const ways = waysOf(told, kept);
  const dates = told[kept.date];
  const { order, mark, spent, ...columns } = kept;
  const orderFits = !dates || Object.values(dates.dates).every((count) => count <= dates.dates[order]);
  return {
    ...columns,
    ...(orderFits ? { order } : {}),
    ...(!ways.mark || ways.mark === mark || told[kept.amount]?.bare ? { mark } : {}),
    ...(!ways.spent || ways.spent === spent || !told[kept.amount]?.filled ? { spent } : {}),
  };
}
