import { createHash, randomBytes } from 'node:crypto';
import type { Db } from '../../db/connect.ts';
import type { ChainedEvent } from './history.types.ts';
import { insertEvent, selectLastEvent } from './history.queries.ts';

/** What happened to a record. `facts` stay for ever; `words` may hold personal data and are only hashed into the chain. */
export interface EventInput {
  recordKind: 'claim';
  recordId: bigint;
  at: Date;
  actorId: string;
  kind: string;
  facts: Record<string, unknown>;
  words?: Record<string, unknown>;
}

const START = '0'.repeat(64);
export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

/**
 * Adds an event to the hash chain of its record. The caller holds a lock on the record, so events of one record are
 * numbered one after the other; the database refuses a second event with the same number.
 */
export async function appendEvent(trx: Db, input: EventInput): Promise<void> {
  const last = await selectLastEvent(trx, input.recordKind, input.recordId);
  const salt = input.words ? randomBytes(16).toString('hex') : null;
  const event: ChainedEvent = {
    record_kind: input.recordKind,
    record_id: input.recordId,
    seq: (last?.seq ?? 0) + 1,
    at: input.at,
    actor_id: input.actorId,
    kind: input.kind,
    facts: input.facts,
    private_hash: salt && sha256(salt + canonical(input.words)),
    previous_hash: last?.hash ?? START,
  };
  await insertEvent(trx, { ...event, hash: hashOf(event) }, salt === null ? null : { salt, words: input.words! });
}

/** The hash that chains an event to the one before it. */
export function hashOf(event: ChainedEvent): string {
  const { previous_hash, record_kind, record_id, seq, at, actor_id, kind, facts, private_hash } = event;
  const fields = [
    previous_hash,
    record_kind,
    String(record_id),
    seq,
    at.toISOString(),
    actor_id,
    kind,
    canonical(facts),
    private_hash,
  ];
  return sha256(JSON.stringify(fields));
}

/** JSON with keys in order, so that a document read back from the database hashes as it was written. */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  return `{${entries
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([k, v]) => `${JSON.stringify(k)}:${canonical(v)}`)
    .join(',')}}`;
}
