import type { Db } from '../../platform/db/connect.ts';

export interface PeriodKey {
  entity: string;
  id: string;
}

export function lockPeriod(
  trx: Db,
  { entity, id }: PeriodKey,
): Promise<{ state: 'open' | 'closed'; revision: number } | undefined> {
  return trx('periods').where({ entity_id: entity, id }).forUpdate().first('state', 'revision');
}
export async function updatePeriod(
  trx: Db,
  { entity, id }: PeriodKey,
  changes: Record<string, unknown>,
): Promise<void> {
  await trx('periods').where({ entity_id: entity, id }).update(changes);
}

export interface PeriodView {
  entity: string;
  id: string;
  from: string;
  to: string;
  state: 'open' | 'closed';
  revision: number;
}
/** The periods of some entities (null: of all), in their order. */
export function selectPeriodList(db: Db, entities: readonly string[] | null): Promise<PeriodView[]> {
  const query = db('periods')
    .orderBy(['entity_id', 'from_date'])
    .select('entity_id as entity', 'id', 'from_date as from', 'to_date as to', 'state', 'revision');
  return entities ? query.whereIn('entity_id', [...entities]) : query;
}
