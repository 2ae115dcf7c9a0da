import type { DeskColumn, DeskView, SaveView } from '../../../contract/desk.ts';
import type { Db } from '../../platform/db/connect.ts';

/** Filters kept by a person, and those others share, by name. */
export function selectViews(db: Db, person: string): Promise<DeskView[]> {
  return db('desk_views as v')
    .join('people as p', 'p.id', 'v.owner_id')
    .where((of) => of.where('v.owner_id', person).orWhere('v.shared', true))
    .orderBy(['v.name', 'v.id'])
    .select('v.name', 'v.shared', 'v.query', 'p.name as owner')
    .select(db.raw('v.id::text as id, v.owner_id = ? as own', [person]));
}
/** How many somebody keeps besides the one of a name. */
export const countOtherViews = async (db: Db, person: string, name: string): Promise<number> =>
  Number((await db('desk_views').where({ owner_id: person }).whereNot({ name }).count({ n: '*' }).first())?.n ?? 0);
export async function upsertView(db: Db, person: string, view: SaveView): Promise<void> {
  await db('desk_views')
    .insert({ owner_id: person, ...view })
    .onConflict(['owner_id', 'name'])
    .merge();
}
/** Gives up a filter; false when this person has none of that id. */
export const deleteView = async (db: Db, person: string, id: bigint): Promise<boolean> =>
  (await db('desk_views')
    .where({ owner_id: person })
    .whereRaw('id = ?', [String(id)])
    .delete()) > 0;

/** The columns somebody chose; null as long as they did not. */
export async function selectColumns(db: Db, person: string): Promise<DeskColumn[] | null> {
  const row = await db('desk_columns').where({ person_id: person }).first('columns');
  return row?.columns ?? null;
}
export async function upsertColumns(db: Db, person: string, columns: readonly DeskColumn[]): Promise<void> {
  await db('desk_columns')
    .insert({ person_id: person, columns: JSON.stringify(columns) })
    .onConflict('person_id')
    .merge();
}
