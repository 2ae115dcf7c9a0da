import { createHmac, randomBytes } from 'node:crypto';
import { markedText } from '../../../core/workflow/eventText.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import type { ChainedEvent } from '../../../core/workflow/eventText.ts';
import type { Db } from '../db/connect.ts';
import { insertEvent, type EventRow } from './history.queries.ts';
import { sha256 } from './sha256.ts';

/** What happened to a record. `facts` stay for ever; `words` may hold personal data and are only hashed into the chain. */
export interface EventInput {
  recordKind: string;
  recordId: string;
  at: Date;
  /** null: the system did it. */
  actorId: string | null;
  /** What the person brought that shows it is them; the database refuses to name anybody without. */
  proof?: string | null;
  kind: string;
  facts: Record<string, unknown>;
  /** SHA-256 of the document, journal or file it is about. */
  about?: string | null;
  words?: Record<string, unknown> | null;
}

/**
 * Adds an event to the hash chain of its record; its hash. The caller holds a lock on the record, so events of one record
 * are numbered one after the other; the database computes the link, and refuses a second event with the same number. With a key the
 * event is marked by it, so that one that somebody else wrote into the database shows.
 */
export function appendEvent(trx: Db, input: EventInput, key: string | null = null): Promise<string> {
  const salt = input.words ? randomBytes(16).toString('hex') : null;
  const about = input.about ?? null;
  const privateHash = salt && sha256(salt + canonical(input.words));
  const { recordKind, recordId, at, actorId: actor, kind, facts } = input;
  const said = { recordKind, recordId, at: at.toISOString(), actor, kind, facts, about, privateHash };
  return insertEvent(trx, {
    ...input,
    about,
    proof: input.proof ?? null,
    facts: canonical(facts),
    privateHash,
    salt,
    words: input.words ?? null,
    mark: key && createHmac('sha256', key).update(markedText(said)).digest('hex'),
  });
}

/** An event as it is exported and verified. */
export const toChained = (event: EventRow): ChainedEvent => ({
  recordKind: event.record_kind,
  recordId: event.record_id,
  seq: event.seq,
  at: event.at.toISOString(),
  actor: event.actor_id,
  kind: event.kind,
  facts: JSON.parse(event.facts) as Record<string, unknown>,
  about: event.about,
  privateHash: event.private_hash,
  previousHash: event.previous_hash,
});
