import { today, type Clock } from '../../platform/ports/clock.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectPeriods, type PeriodRow } from './book.queries.ts';

/** The date a posting would carry now: today when its period is open, else the end of the latest open period before, else today. */
export async function proposedPostingDate(db: Db, clock: Clock, entityId: string): Promise<string> {
  const date = today(clock);
  const open = (await selectPeriods(db, entityId)).filter((p) => p.state === 'open');
  if (open.some((p) => holds(p, date))) return date;
  return open.filter((p) => p.to_date < date).at(-1)?.to_date ?? open[0]?.from_date ?? date;
}

/** The open period a date falls into; refused with the open ones named when there is none. */
export async function openPeriodOf(db: Db, entityId: string, date: string): Promise<PeriodRow> {
  const periods = await selectPeriods(db, entityId);
  const period = periods.find((p) => p.state === 'open' && holds(p, date));
  if (period) return period;
  const open = periods.filter((p) => p.state === 'open');
  throw new Refused('period-closed', { date, open: open.map((p) => p.id).join(', ') || 'none' });
}

const holds = (period: PeriodRow, date: string): boolean => period.from_date <= date && date <= period.to_date;
