import { addDays, daysBetween } from '../numbers/isoDate.ts';

/** When somebody is reminded: so many days before the day, on it, and every so many days after it; 0 is never. */
export interface ReminderDays {
  before: number;
  every: number;
}

/**
 * The day whose reminder stands last on a day: it is sent unless it was, so that one missed by a stop comes late and two missed
 * come as one. null as long as none stands. Due on the 20th, 7 before, every 7: on the 12th null, on the 14th the 13th, on the
 * 20th the 20th, on the 28th the 27th.
 */
export function reminderDay(dueBy: string, on: string, { before, every }: ReminderDays): string | null {
  const past = daysBetween(dueBy, on);
  if (past >= 0) return every === 0 ? dueBy : addDays(dueBy, past - (past % every));
  return before > 0 && past >= -before ? addDays(dueBy, -before) : null;
}

/** The day by which an advance is to be accounted for as it is proposed: so many days after the trip, or after today. */
export const proposedDue = (tripTo: string | null, on: string, days: number): string =>
  addDays(tripTo !== null && tripTo > on ? tripTo : on, days);
