import type { Db } from '../db/connect.ts';

/** An event as a row of the database; its hash is made of all of it. `facts` is canonical JSON. */
export interface EventRow {
  id: bigint;
  record_kind: string;
  record_id: string;
  seq: number;
  at: Date;
  actor_id: string | null;
  kind: string;
  facts: string;
  about: string | null;
  private_hash: string | null;
  previous_hash: string;
  hash: string;
  mark: string | null;
}

export interface NewEvent {
  recordKind: string;
  recordId: string;
  at: Date;
  actorId: string | null;
  proof: string | null;
  kind: string;
  facts: string;
  about: string | null;
  privateHash: string | null;
  salt: string | null;
  words: Record<string, unknown> | null;
  mark: string | null;
}

export async function insertEvent(trx: Db, e: NewEvent): Promise<string> {
  const words = e.words === null ? null : JSON.stringify(e.words);
  const { rows } = await trx.raw('select append_event(?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) as hash', [
    e.recordKind,
    e.recordId,
    e.at,
    e.actorId as string,
    e.kind,
    e.facts,
    e.about as string,
    e.privateHash as string,
    e.salt as string,
    words as string,
    e.proof as string,
    e.mark as string,
  ]);
  return rows[0].hash;
}

export interface EventWithWords {
  seq: number;
  at: Date;
  kind: string;
  facts: Record<string, unknown>;
  words: Record<string, unknown> | null;
  /** The person's name; null when the system did it. */
  actor: string | null;
}

/** The history of one record, oldest first, with who did it and the words that came with it. */
export async function selectEvents(db: Db, kind: string, id: string): Promise<EventWithWords[]> {
  const rows = await db('events as e')
    .leftJoin('people as p', 'p.id', 'e.actor_id')
    .leftJoin('event_words as w', 'w.event_id', 'e.id')
    .where({ record_kind: kind, record_id: id })
    .orderBy('e.seq')
    .select('e.seq', 'e.at', 'e.kind', 'e.facts', 'w.words', 'p.name as actor');
  return rows.map((row) => ({ ...row, facts: JSON.parse(row.facts) }));
}

/** When each of some records of a kind came into each of its states, oldest first; for tide bars. */
export async function selectStateChanges(
  db: Db,
  kind: string,
  ids: readonly string[],
): Promise<{ recordId: string; state: string; at: Date }[]> {
  const rows = await db('events')
    .where('record_kind', kind)
    .whereRaw('record_id = any(?)', [[...ids]])
    .whereRaw(String.raw`facts::jsonb \? 'state'`)
    .orderBy(['record_id', 'seq'])
    .select('record_id as recordId', 'at', db.raw(`facts::jsonb->>'state' as state`));
  return rows;
}

const CHUNK = 1000;

/** Every event, record by record in the order of its chain, read in pieces so that a long history needs little memory. */
export async function* selectChain(db: Db): AsyncGenerator<EventRow> {
  let after: EventRow | undefined;
  for (;;) {
    const query = db<EventRow>('events').orderBy(['record_kind', 'record_id', 'seq']).limit(CHUNK);
    if (after)
      query.whereRaw('(record_kind, record_id, seq) > (?, ?, ?)', [after.record_kind, after.record_id, after.seq]);
    const rows: EventRow[] = await query;
    yield* rows;
    if (rows.length < CHUNK) return;
    after = rows.at(-1);
  }
}

/** The words that came with events, with the salt they were hashed with: what an auditor proves beside the chain. */
export async function* selectWords(
  db: Db,
): AsyncGenerator<{ recordKind: string; recordId: string; seq: number; salt: string; words: unknown }> {
  for (let after = '0'; ;) {
    const rows = await db('event_words as w')
      .join('events as e', 'e.id', 'w.event_id')
      .whereRaw('e.id > ?', [after])
      .orderBy('e.id')
      .limit(CHUNK)
      .select('e.id', 'e.record_kind as recordKind', 'e.record_id as recordId', 'e.seq', 'w.salt', 'w.words');
    for (const { id: _, ...row } of rows) yield row;
    if (rows.length < CHUNK) return;
    after = String(rows.at(-1).id);
  }
}
