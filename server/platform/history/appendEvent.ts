import { createHash, randomBytes } from 'node:crypto';
import type { Db } from '../db/connect.ts';
import { canonical, CHAIN_START, eventText, type ChainedEvent } from '../../../core/workflow/eventText.ts';
import type { EventRecord } from './history.types.ts';
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

export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

/**
 * Adds an event to the hash chain of its record. The caller holds a lock on the record, so events of one record are
 * numbered one after the other; the database refuses a second event with the same number.
 */
export async function appendEvent(trx: Db, input: EventInput): Promise<void> {
  const last = await selectLastEvent(trx, input.recordKind, input.recordId);
  const salt = input.words ? randomBytes(16).toString('hex') : null;
  const event: EventRecord = {
    record_kind: input.recordKind,
    record_id: input.recordId,
    seq: (last?.seq ?? 0) + 1,
    at: input.at,
    actor_id: input.actorId,
    kind: input.kind,
    facts: input.facts,
    private_hash: salt && sha256(salt + canonical(input.words)),
    previous_hash: last?.hash ?? CHAIN_START,
  };
  await insertEvent(trx, { ...event, hash: hashOf(event) }, salt === null ? null : { salt, words: input.words! });
}

/** The hash that chains an event to the one before it. */
export const hashOf = (event: EventRecord): string => sha256(eventText(toChained(event)));

/** An event as it is exported and verified. */
export function toChained(event: EventRecord): ChainedEvent {
  return {
    recordKind: event.record_kind,
    recordId: String(event.record_id),
    seq: event.seq,
    at: event.at.toISOString(),
    actor: event.actor_id,
    kind: event.kind,
    facts: event.facts,
    privateHash: event.private_hash,
    previousHash: event.previous_hash,
  };
}
