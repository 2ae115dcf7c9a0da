import { today, type Clock } from '../../platform/ports/clock.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectPeriods, type PeriodRow } from './periods.queries.ts';

/** The days of an entity: what it is there now, and the day a posting would carry. */
export interface PostingDates {
  today: string;
  /** Today when its period is open, else the end of the latest open period before, else today. */
  posting: string;
}

export async function postingDates(db: Db, clock: Clock, entityId: string): Promise<PostingDates> {
  const { timeZone, periods } = await selectPeriods(db, entityId);
  const date = today(clock, timeZone);
  const open = periods.filter((p) => p.state === 'open');
  if (open.some((p) => holds(p, date))) return { today: date, posting: date };
  return { today: date, posting: open.filter((p) => p.to_date < date).at(-1)?.to_date ?? date };
}

/** What day it is where an entity is. */
export const entityToday = async (db: Db, clock: Clock, entityId: string): Promise<string> =>
  (await postingDates(db, clock, entityId)).today;

/** The day a posting of an entity would carry now. */
export const proposedPostingDate = async (db: Db, clock: Clock, entityId: string): Promise<string> =>
  (await postingDates(db, clock, entityId)).posting;

/**
 * The open period a posting date falls into. Refused with the open ones named when there is none, and when the date has
 * not come yet where the entity is.
 */
export async function openPeriodOf(db: Db, clock: Clock, entityId: string, date: string): Promise<PeriodRow> {
  const { timeZone, periods } = await selectPeriods(db, entityId);
  const now = today(clock, timeZone);
  if (date > now) throw new Refused('future-date', { date, today: now });
  const period = periods.find((p) => p.state === 'open' && holds(p, date));
  if (period) return period;
  const open = periods.filter((p) => p.state === 'open' && p.from_date <= now);
  throw new Refused('period-closed', { date, open: open.map((p) => p.id).join(', ') || 'none' });
}

const holds = (period: PeriodRow, date: string): boolean => period.from_date <= date && date <= period.to_date;
