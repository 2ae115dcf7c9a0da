import type { RouteLevel, Routed } from '../../../core/routing/route.schema.ts';
import type { Need, Route, RouteBook } from '../../../core/routing/route.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { MAX_RATE_AGE, PIVOT } from '../book/book.queries.ts';
import { quotesOn } from '../book/ratesOn.ts';

/** A version of a record of which somebody decides. Plans and advances have one. */
export interface RoutedKey {
  kind: Routed;
  id: string;
  version: number;
}

const HOLDS = `cast(:on as date) between coalesce(valid_from, '-infinity') and coalesce(valid_to, 'infinity')`;

type RouteRows = Pick<RouteBook, 'people' | 'substitutes' | 'roles'> & { levels: { id: string; rule: RouteLevel }[] };
const LISTED = (fields: string, from: string) =>
  `(select coalesce(jsonb_agg(jsonb_build_object(${fields})), '[]') from ${from})`;
const ROUTE_BOOK = `select
  ${LISTED(`'id', id, 'rule', rule`, `routes where ${HOLDS}`)} as levels,
  ${LISTED(`'id', id, 'kind', kind, 'active', active, 'usualApprover', usual_approver, 'sponsor', sponsor`, 'people')} as people,
  ${LISTED(`'person', person_id, 'substitute', substitute_id`, `substitutes where ${HOLDS}`)} as substitutes,
  ${LISTED(`'person', person_id, 'role', role, 'entity', entity_id`, `person_roles where ${HOLDS}`)} as roles`;

/** The part of the book that routes are computed from on a day, with the rates of these currencies. */
export async function selectRouteBook(db: Db, on: string, currencies: readonly string[]): Promise<RouteBook> {
  const { rows } = await db.raw(ROUTE_BOOK, { on });
  const { levels, people, substitutes, roles } = rows[0] as RouteRows;
  const used = [...currencies, ...levels.flatMap(({ rule }) => (rule.above ? [rule.above.currency] : []))];
  const rates = await quotesOn(db, used, on);
  return {
    levels: levels.map(({ id, rule }) => ({ id, ...rule })),
    ...{ people, substitutes, roles, rates },
    ...{ pivot: PIVOT, maxRateAge: MAX_RATE_AGE },
  };
}

/** The dimensions whose codes somebody owns, and the owner of each code. */
export async function selectCodeOwners(db: Db): Promise<Map<string, string | null>> {
  const rows: { dimension: string; code: string; owner: string | null }[] = await db('dimension_values').select(
    'dimension_id as dimension',
    'code',
    'owner_id as owner',
  );
  return new Map(rows.map(({ dimension, code, owner }) => [`${dimension} ${code}`, owner]));
}

export interface NeedRow {
  id: bigint;
  asks: 'record' | 'code';
  place: number;
  level: string;
  people: string[];
  about: Need['about'];
  detours: Need['detours'];
  waiting: boolean;
  decided_by: string | null;
  decided_at: Date | null;
  decided_in: number | null;
}
/** A decision that is needed; one that was taken already says by whom. */
export type NewNeed = Pick<NeedRow, 'asks' | 'place' | 'level' | 'people' | 'about' | 'detours' | 'waiting'>
  & Partial<Pick<NeedRow, 'decided_by' | 'decided_at' | 'decided_in'>>;

const keyOf = ({ kind, id, version }: RoutedKey) => ({ record_kind: kind, record_id: id, version });

export async function upsertRoute(trx: Db, key: RoutedKey, route: Route, at: Date): Promise<void> {
  await trx('approval_routes')
    .insert({ ...keyOf(key), route: JSON.stringify(route), computed_at: at })
    .onConflict(['record_kind', 'record_id', 'version'])
    .merge();
}

export async function insertNeeds(trx: Db, key: RoutedKey, needs: readonly NewNeed[], since: Date): Promise<void> {
  if (needs.length === 0) return;
  const rows = needs.map(({ about, detours, ...need }) => ({
    ...{ ...keyOf(key), ...need, since },
    about: JSON.stringify(about),
    detours: JSON.stringify(detours),
  }));
  await trx('approval_needs').insert(rows);
}

/** The decisions a version needs, in the order in which they are taken. */
export const selectNeeds = (db: Db, key: RoutedKey): Promise<NeedRow[]> =>
  db<NeedRow>('approval_needs').where(keyOf(key)).orderBy(['asks', 'place', 'id']).select();

/** A decision as it is kept; null takes it back. */
export interface Decided {
  by: string;
  at: Date;
  revision: number;
}
export async function updateDecided(trx: Db, ids: readonly bigint[], decided: Decided | null): Promise<void> {
  await trx('approval_needs')
    .whereIn('id', ids.map(String))
    .update({
      waiting: false,
      decided_by: decided?.by ?? null,
      decided_at: decided?.at ?? null,
      decided_in: decided?.revision ?? null,
    });
}

/** Sets which of the decisions of a version wait now; since when is kept of those that waited before. */
export async function updateWaiting(trx: Db, key: RoutedKey, ids: readonly bigint[], at: Date): Promise<void> {
  const now = ids.map(String);
  await trx('approval_needs')
    .where({ ...keyOf(key), asks: 'record' })
    .update({
      waiting: trx.raw('id = any(?::bigint[])', [now]),
      since: trx.raw('case when waiting or not id = any(?::bigint[]) then since else ?::timestamptz end', [now, at]),
    });
}

/** Nobody is waited for any more. */
export async function endWaiting(trx: Db, key: RoutedKey): Promise<void> {
  await trx('approval_needs')
    .where({ ...keyOf(key), waiting: true })
    .update({ waiting: false });
}

export async function deleteNeeds(trx: Db, ids: readonly bigint[]): Promise<void> {
  if (ids.length > 0) await trx('approval_needs').whereIn('id', ids.map(String)).delete();
}

/** A route as it was computed when a version was submitted; undefined of what was never routed. */
export async function selectRoute(db: Db, { kind, id, version }: RoutedKey): Promise<Route | undefined> {
  const row = await db('approval_routes').where({ record_kind: kind, record_id: id, version }).first('route');
  return row?.route;
}

/** The names of people, by id. */
export async function selectNames(db: Db, ids: readonly string[]): Promise<Map<string, string>> {
  const rows: { id: string; name: string }[] = await db('people')
    .whereIn('id', [...ids])
    .select('id', 'name');
  return new Map(rows.map(({ id, name }) => [id, name]));
}
