import { computeRoute } from '../../../core/routing/computeRoute.ts';
import type { ChargedCode, Need, RoutedRecord } from '../../../core/routing/route.types.ts';
import type { Actor } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import {
  deleteNeeds,
  insertNeeds,
  selectNeeds,
  selectRouteBook,
  updateDecided,
  type Decided,
  type NeedRow,
  type RoutedKey,
} from './routing.queries.ts';

const LEVEL = 'Code added by finance';
const codeOf = ({ about: [code] }: Pick<Need, 'about'>): string => `${code!.dimension} ${code!.code}`;
const codesOf = async (trx: Db, key: RoutedKey): Promise<NeedRow[]> =>
  (await selectNeeds(trx, key)).filter((n) => n.asks === 'code');
const askedOf = (needs: readonly NeedRow[]): string[] => [
  ...new Set(needs.filter((n) => n.decided_by === null).flatMap((n) => n.people)),
];

/**
 * Asks the owners of codes that finance gave a record after it was approved, each about theirs, whatever the amount; what is no
 * longer charged is no longer asked about; what was agreed is asked about again where it became more. Who is still asked.
 */
export async function askCodeOwners(
  trx: Db,
  key: RoutedKey,
  record: RoutedRecord,
  added: readonly ChargedCode[],
  at: Date,
): Promise<string[]> {
  const there = await codesOf(trx, key);
  const wanted = new Set(added.map((c) => `${c.dimension} ${c.code}`));
  const gone = there.filter((n) => (n.decided_by === null) !== wanted.has(codeOf(n)));
  await deleteNeeds(
    trx,
    gone.map((n) => n.id),
  );
  const known = new Set(there.filter((n) => !gone.includes(n)).map(codeOf));
  const fresh = added.filter((c) => !known.has(`${c.dimension} ${c.code}`));
  const asked = askedOf(there.filter((n) => !gone.includes(n)));
  if (fresh.length === 0) return asked;
  const book = await selectRouteBook(trx, record.on, []);
  const needs = fresh.flatMap((code) => ownersOf({ ...record, charged: [code] }, book, code));
  await insertNeeds(trx, key, needs, at);
  return [...new Set([...asked, ...needs.flatMap((n) => n.people)])];
}

/** Asks those who answer now for the codes that wait for an answer; who is asked. */
export async function askInstead(trx: Db, key: RoutedKey, record: RoutedRecord, at: Date): Promise<string[]> {
  const open = (await codesOf(trx, key)).filter((n) => n.decided_by === null);
  const wanted = new Set(open.map(codeOf));
  const book = await selectRouteBook(trx, record.on, []);
  const charged = record.charged.filter((c) => c.owner !== null && wanted.has(`${c.dimension} ${c.code}`));
  const needs = charged.flatMap((code) => ownersOf({ ...record, charged: [code] }, book, code));
  if (
    needs
      .flatMap((n) => n.people)
      .sort()
      .join()
    === open
      .flatMap((n) => n.people)
      .sort()
      .join()
  )
    return askedOf(open);
  await deleteNeeds(
    trx,
    open.map((n) => n.id),
  );
  await insertNeeds(trx, key, needs, at);
  return [...new Set(needs.flatMap((n) => n.people))];
}

function ownersOf(record: RoutedRecord, book: Parameters<typeof computeRoute>[1], { dimension, code }: ChargedCode) {
  const owner = { is: 'owner' as const, dimensions: [dimension] };
  const level = { id: LEVEL, name: LEVEL, of: [record.kind], place: 1, who: owner };
  const { needs, skipped } = computeRoute(record, { ...book, levels: [level] }).levels[0]!;
  if (skipped.some((s) => s.why === 'nobody'))
    throw new Refused('nobody-decides', { level: `${dimension} ${code}`, ask: 'an administrator' });
  return needs.map((need) => ({ ...need, asks: 'code' as const, level: LEVEL, place: 1, waiting: true }));
}

/** What somebody says of the codes they are asked about: agreed, or not; who is still asked, and the codes it was about. */
export async function answerForCodes(
  trx: Db,
  { key, entity }: { key: RoutedKey; entity: string },
  actor: Actor,
  agreed: Decided | null,
): Promise<{ codeOwners: string[]; codes: string[] }> {
  const needs = await codesOf(trx, key);
  const seats = [actor.id, ...(actor.standsFor?.(entity) ?? [])];
  const theirs = needs.filter((n) => n.decided_by === null && n.people.some((person) => seats.includes(person)));
  await updateDecided(
    trx,
    theirs.map((n) => n.id),
    agreed,
  );
  return { codeOwners: askedOf(await codesOf(trx, key)), codes: theirs.map(codeOf) };
}
