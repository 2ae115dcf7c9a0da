import { decidedWith, waitingNeeds } from '../../../core/routing/standing.ts';
import type { Route } from '../../../core/routing/route.types.ts';
import type { Actor } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import {
  endWaiting,
  insertNeeds,
  selectNames,
  selectNeeds,
  updateDecided,
  updateWaiting,
  upsertRoute,
  type NeedRow,
  type RoutedKey,
} from './routing.queries.ts';

/** Who decides now, and everybody on the route: columns of the record, so that its lists and its lock know them. */
export interface RouteColumns {
  deciders: string[];
  approvers: string[];
}
/** What an act needs of a record that is decided about. */
export interface DecidedRecord {
  key: RoutedKey;
  entity: string;
  /** The revision the record has after the act. */
  revision: number;
  approvers: readonly string[];
}

const distinct = (ids: Iterable<string>): string[] => [...new Set(ids)];
const standing = (needs: readonly NeedRow[]) =>
  needs.filter((n) => n.asks === 'record').map((n) => ({ ...n, decidedBy: n.decided_by }));

/** Sends a record on its route: every decision it needs is kept, those of the first place wait. */
export async function beginRoute(
  trx: Db,
  { key, approvers }: Pick<DecidedRecord, 'key' | 'approvers'>,
  route: Route,
  at: Date,
): Promise<RouteColumns> {
  await refuseUnfilled(trx, route);
  const places = route.levels.flatMap(({ name, place, needs }) =>
    needs.map((need) => ({ ...need, asks: 'record' as const, level: name, place, waiting: false, decidedBy: null })),
  );
  const first = new Set(waitingNeeds(places));
  await upsertRoute(trx, key, route, at);
  const rows = places.map(({ decidedBy: _, ...need }, i) => ({ ...need, waiting: first.has(places[i]!) }));
  await insertNeeds(trx, key, rows, at);
  return {
    deciders: distinct([...first].flatMap((n) => n.people)),
    approvers: distinct([...approvers, ...places.flatMap((n) => n.people)]),
  };
}

/** A record that nobody can decide about stays where it is, and says whom to ask. */
async function refuseUnfilled(trx: Db, { unfilled }: Route): Promise<void> {
  if (!unfilled) return;
  const names = await selectNames(trx, unfilled.ask);
  const ask = [...names.values()].sort().join(' or ') || 'an administrator';
  throw new Refused('nobody-decides', { level: unfilled.level, ask });
}

/** Whether nothing is left to decide once this person has: which of the two acts of approving it is. */
export async function isLastDecision(trx: Db, key: RoutedKey, entity: string, actor: Actor): Promise<boolean> {
  const needs = standing(await selectNeeds(trx, key));
  const taken = new Set(decidedWith(needs, actor.id, actor.standsFor?.(entity) ?? []));
  return needs.every((n) => n.decidedBy !== null || taken.has(n));
}

/** Takes the decisions that are this person's to take; the columns of the record afterwards, and what was decided about. */
export async function decide(
  trx: Db,
  { key, entity, revision, approvers }: DecidedRecord,
  actor: Actor,
  at: Date,
): Promise<{ columns: Record<string, unknown>; facts: Record<string, unknown> }> {
  const needs = standing(await selectNeeds(trx, key));
  const taken = decidedWith(needs, actor.id, actor.standsFor?.(entity) ?? []);
  if (taken.length === 0) throw new Refused('not-yours', { what: key.kind, needs: 'approver' });
  await updateDecided(
    trx,
    taken.map((n) => n.id),
    { by: actor.id, at, revision },
  );
  const after = needs.map((n) => (taken.includes(n) ? { ...n, decidedBy: actor.id } : n));
  const waiting = waitingNeeds(after);
  await updateWaiting(
    trx,
    key,
    waiting.map((n) => n.id),
    at,
  );
  const instead = distinct(taken.flatMap((n) => (n.people.includes(actor.id) ? [] : n.people)));
  return {
    columns: {
      deciders: distinct(waiting.flatMap((n) => n.people)),
      approvers: distinct([...approvers, actor.id]),
      decided_by: actor.id,
      decided_in: revision,
    },
    facts: {
      levels: distinct(taken.map((n) => n.level)),
      ...(instead.length > 0 ? { insteadOf: instead } : {}),
    },
  };
}

/** Takes back the decision that was taken last; it waits again. */
export async function undecide(
  trx: Db,
  { key }: Pick<DecidedRecord, 'key'>,
  decidedIn: number,
  at: Date,
): Promise<Record<string, unknown>> {
  const needs = standing(await selectNeeds(trx, key));
  const taken = needs.filter((n) => n.decided_in === decidedIn);
  await updateDecided(
    trx,
    taken.map((n) => n.id),
    null,
  );
  const waiting = waitingNeeds(needs.map((n) => (taken.includes(n) ? { ...n, decidedBy: null } : n)));
  await updateWaiting(
    trx,
    key,
    waiting.map((n) => n.id),
    at,
  );
  return { deciders: distinct(waiting.flatMap((n) => n.people)), decided_by: null, decided_in: null };
}

/** Asks those of the last place of a route again, whatever they decided; refused where nobody decided. */
export async function askLastAgain(trx: Db, key: RoutedKey, at: Date): Promise<Record<string, unknown>> {
  const needs = standing(await selectNeeds(trx, key));
  const decided = needs.filter((n) => n.decidedBy !== null);
  if (decided.length === 0) throw new Refused('nobody-approved', { number: key.id });
  const last = Math.max(...decided.map((n) => n.place));
  const again = decided.filter((n) => n.place === last);
  const ids = again.map((n) => n.id);
  await updateDecided(trx, ids, null);
  await updateWaiting(trx, key, ids, at);
  return { deciders: distinct(again.flatMap((n) => n.people)), decided_by: null, decided_in: null };
}

/** Ends the route of a version that was declined, returned or taken back: nobody is waited for. */
export async function endRoute(trx: Db, key: RoutedKey): Promise<{ deciders: string[] }> {
  await endWaiting(trx, key);
  return { deciders: [] };
}
