import type { Db } from '../../platform/db/connect.ts';

export interface KeptMonth {
  state: 'open' | 'closed';
  revision: number;
  closedBy: string | null;
  closedAt: Date | null;
}

/** A card's month as it is kept; one that was never closed is open. */
export async function selectMonth(db: Db, card: string, month: string): Promise<KeptMonth> {
  const row = await db('card_months as m')
    .leftJoin('people as p', 'p.id', 'm.closed_by')
    .where({ card_id: card, month })
    .first('m.state', 'm.revision', 'p.name as closedBy', 'm.closed_at as closedAt');
  return row ?? { state: 'open', revision: 1, closedBy: null, closedAt: null };
}
