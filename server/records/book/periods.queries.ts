import type { Db } from '../../platform/db/connect.ts';

export interface PeriodRow {
  id: string;
  from_date: string;
  to_date: string;
  state: 'open' | 'closed';
}

/** An entity's periods in their order, and the time zone that says what its today is. */
export async function selectPeriods(db: Db, entityId: string): Promise<{ timeZone: string; periods: PeriodRow[] }> {
  const rows = await db('entities as e')
    .leftJoin('periods as p', 'p.entity_id', 'e.id')
    .where('e.id', entityId)
    .orderBy('p.from_date')
    .select('e.time_zone', 'p.id', 'p.from_date', 'p.to_date', 'p.state');
  return { timeZone: rows[0]?.time_zone ?? 'UTC', periods: rows.filter((r) => r.id !== null) };
}
