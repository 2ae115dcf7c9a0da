import { continueRoute } from '../../../core/routing/continueRoute.ts';
import { computeRoute } from '../../../core/routing/computeRoute.ts';
import { waitingNeeds } from '../../../core/routing/standing.ts';
import type { Db } from '../../platform/db/connect.ts';
import { routedRecord, type RoutedSubject } from './routeOf.ts';
import {
  deleteNeeds,
  insertNeeds,
  selectNeeds,
  selectRouteBook,
  upsertRoute,
  type RoutedKey,
} from './routing.queries.ts';

/** A record whose route may go on: as it was sent, and what day it is where its entity is. */
export interface Waiting {
  key: RoutedKey;
  subject: RoutedSubject;
  approvers: readonly string[];
  today: string;
  at: Date;
}

/**
 * Sends a record on to whoever decides now in the place of those it waits for: by the levels and rates of the day it was sent,
 * with the people, roles and substitutes of today. Its columns, or null where it waits for the right ones.
 */
export async function goOn(
  trx: Db,
  { key, subject, approvers, today, at }: Waiting,
): Promise<{ deciders: string[]; approvers: string[] } | null> {
  const rows = (await selectNeeds(trx, key)).filter((n) => n.asks === 'record');
  const record = await routedRecord(trx, subject);
  const sent = await selectRouteBook(trx, subject.on, [record.total.currency, record.ledgerCurrency]);
  const { people, substitutes, roles } = await selectRouteBook(trx, today, []);
  const now = computeRoute(record, { ...sent, people, substitutes, roles });
  const taken = rows.map((row) => ({ ...row, decidedBy: row.decided_by }));
  const went = continueRoute(taken, now);
  if (!went) return null;
  const first = new Set(waitingNeeds(went.needs));
  const rowOf = new Map(taken.map((need) => [need as object, need]));
  await deleteNeeds(
    trx,
    rows.map((r) => r.id),
  );
  const needs = went.needs.map((need) => {
    const { people, about, detours, level, place } = need;
    const before = rowOf.get(need);
    const decided = before && {
      decided_by: before.decided_by,
      decided_at: before.decided_at,
      decided_in: before.decided_in,
    };
    return { asks: 'record' as const, people, about, detours, level, place, waiting: first.has(need), ...decided };
  });
  await insertNeeds(trx, key, needs, at);
  await upsertRoute(trx, key, { levels: went.levels, unfilled: null }, at);
  return {
    deciders: [...new Set([...first].flatMap((n) => n.people))],
    approvers: [...new Set([...approvers, ...went.needs.flatMap((n) => n.people)])],
  };
}
