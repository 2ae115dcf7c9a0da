import { addDays } from '../../numbers/isoDate.ts';

/**
 * A card's months run by the cycle of its statements: the one of March that closes on the 24th is 25 February to 24 March.
 * `closesOn` is a day of the month, taken as the last where a month is shorter; null closes with the calendar month.
 */
export type ClosesOn = number | null;

/** The first and last day of a card's month. Example: ('2026-03', 24) → 2026-02-25 to 2026-03-24. */
export function cycleDays(month: string, closesOn: ClosesOn): { from: string; to: string } {
  return { from: addDays(endOf(monthBefore(month), closesOn), 1), to: endOf(month, closesOn) };
}

/** The card's month that a day belongs to, YYYY-MM. Example: ('2026-02-25', 24) → '2026-03'. */
export function cycleOf(date: string, closesOn: ClosesOn): string {
  const month = date.slice(0, 7);
  return date <= endOf(month, closesOn) ? month : monthAfter(month);
}

function endOf(month: string, closesOn: ClosesOn): string {
  const last = addDays(`${monthAfter(month)}-01`, -1);
  const day = `${month}-${String(closesOn ?? 31).padStart(2, '0')}`;
  return day < last ? day : last;
}

const monthBefore = (month: string): string => addDays(`${month}-01`, -1).slice(0, 7);
const monthAfter = (month: string): string => addDays(`${month}-01`, 31).slice(0, 7);
