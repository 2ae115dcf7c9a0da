import { localDate } from '../../../core/numbers/localDate.ts';

/** The time, passed in so that tests and the demo can say what it is. */
export interface Clock {
  now(): Date;
}

export const systemClock: Clock = { now: () => new Date() };

/** The latest date it is anywhere: what was bought on a later one has not been bought. */
export const latestToday = (clock: Clock): string => today(clock, 'Pacific/Kiritimati');

/** The calendar date (YYYY-MM-DD) by a clock in a time zone; in UTC where nobody's place decides. */
export const today = (clock: Clock, timeZone = 'UTC'): string => localDate(clock.now(), timeZone);
