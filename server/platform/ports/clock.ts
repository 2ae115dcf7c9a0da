/** The time, passed in so that tests and the demo can say what it is. */
export interface Clock {
  now(): Date;
}

export const systemClock: Clock = { now: () => new Date() };

/** The calendar date (UTC, YYYY-MM-DD) by a clock. */
export const today = (clock: Clock): string => clock.now().toISOString().slice(0, 10);
