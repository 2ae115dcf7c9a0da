import type { Db } from '../db/connect.ts';
import type { EventRecord } from './history.types.ts';

export type EventRow = EventRecord & { id: bigint; hash: string };

export function selectLastEvent(db: Db, kind: string, id: bigint): Promise<{ seq: number; hash: string } | undefined> {
  return db('events').where({ record_kind: kind, record_id: id }).orderBy('seq', 'desc').first('seq', 'hash');
}

export async function insertEvent(
  trx: Db,
  event: Omit<EventRow, 'id'>,
  words: { salt: string; words: Record<string, unknown> } | null,
): Promise<void> {
  const [row] = await trx('events').insert({ ...event, facts: JSON.stringify(event.facts) }, 'id');
  if (words)
    await trx('event_words').insert({ event_id: row.id, salt: words.salt, words: JSON.stringify(words.words) });
}

export interface EventWithWords {
  seq: number;
  at: Date;
  kind: string;
  facts: Record<string, unknown>;
  words: Record<string, unknown> | null;
  actor: string;
  actorId: string;
}

/** The history of one record, oldest first, with who did it and the words that came with it. */
export function selectEvents(db: Db, kind: string, id: bigint): Promise<EventWithWords[]> {
  return db('events as e')
    .join('people as p', 'p.id', 'e.actor_id')
    .leftJoin('event_words as w', 'w.event_id', 'e.id')
    .where({ record_kind: kind, record_id: id })
    .orderBy('e.seq')
    .select('e.seq', 'e.at', 'e.kind', 'e.facts', 'w.words', 'p.name as actor', 'p.id as actorId');
}

/** When each of some claims came into each of its states, oldest first; for tide bars. */
export function selectStateChanges(
  db: Db,
  claimIds: bigint[],
): Promise<{ claimId: bigint; state: string; at: Date }[]> {
  return db('events')
    .where('record_kind', 'claim')
    .whereRaw('record_id = any(?)', [claimIds.map(String)])
    .whereRaw(`facts->>'state' is not null`)
    .orderBy(['record_id', 'seq'])
    .select(db.raw(`record_id as "claimId", at, facts->>'state' as state`));
}

const CHUNK = 1000;

/** Every event, record by record in the order of its chain, read in pieces so that a long history needs little memory. */
export async function* selectChain(db: Db): AsyncGenerator<EventRow> {
  let after: EventRow | undefined;
  for (;;) {
    const query = db<EventRow>('events').orderBy(['record_kind', 'record_id', 'seq']).limit(CHUNK);
    if (after)
      query.whereRaw('(record_kind, record_id, seq) > (?, ?, ?)', [
        after.record_kind,
        String(after.record_id),
        after.seq,
      ]);
    const rows: EventRow[] = await query;
    yield* rows;
    if (rows.length < CHUNK) return;
    after = rows.at(-1);
  }
}
