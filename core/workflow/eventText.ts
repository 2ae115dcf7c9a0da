import { canonical } from '../numbers/canonical.ts';

/** What an event's hash is made of. `at` is an ISO moment in UTC with milliseconds; `actor` null is the system itself. */
export interface ChainedEvent {
  recordKind: string;
  recordId: string;
  seq: number;
  at: string;
  actor: string | null;
  kind: string;
  facts: Record<string, unknown>;
  /** SHA-256 of the document, journal or file the event is about, or null. */
  about: string | null;
  /** The hash of the salted words that came with the event; the words themselves may be gone. */
  privateHash: string | null;
  previousHash: string;
}

/** The previous hash of a record's first event. */
export const CHAIN_START = '0'.repeat(64);

/** What an event says, one field a line; null is an empty line, facts are canonical JSON. No field holds a line break. */
const saidBy = ({
  at,
  actor,
  kind,
  about,
  privateHash,
  facts,
}: Omit<ChainedEvent, 'seq' | 'previousHash'>): string[] => [
  at,
  actor ?? '',
  kind,
  about ?? '',
  privateHash ?? '',
  canonical(facts),
];

/**
 * The text that an event is marked by: what the application knows of it before it stands in its chain, a field a line. The mark is
 * its HMAC-SHA-256 by a key that the database does not hold.
 */
export const markedText = (event: Omit<ChainedEvent, 'seq' | 'previousHash'>): string =>
  ['ebbet-mark/1', event.recordKind, event.recordId, ...saidBy(event)].join('\n');

/**
 * The text whose SHA-256 is the event's hash: its format, the hash before it, its record, its place and what it says. The database
 * computes the same text when an event is added. Example: the same event with another reason → the same text, for
 * reasons go in by their salted hash.
 */
export const eventText = (event: ChainedEvent): string =>
  ['ebbet-event/2', event.previousHash, event.recordKind, event.recordId, event.seq, ...saidBy(event)].join('\n');
