/** What an event's hash is made of. `at` is an ISO moment in UTC with milliseconds. */
export interface ChainedEvent {
  recordKind: string;
  recordId: string;
  seq: number;
  at: string;
  actor: string;
  kind: string;
  facts: Record<string, unknown>;
  /** The hash of the salted words that came with the event; the words themselves may be gone. */
  privateHash: string | null;
  previousHash: string;
}

/** The previous hash of a record's first event. */
export const CHAIN_START = '0'.repeat(64);

/** The text whose SHA-256 is the event's hash: the hash before it, and everything the event says. */
export function eventText({
  previousHash,
  recordKind,
  recordId,
  seq,
  at,
  actor,
  kind,
  facts,
  privateHash,
}: ChainedEvent): string {
  return JSON.stringify([previousHash, recordKind, recordId, seq, at, actor, kind, canonical(facts), privateHash]);
}

/** JSON with keys in order, so that a document read back from a database hashes as it was written. */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  return `{${entries
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([k, v]) => `${JSON.stringify(k)}:${canonical(v)}`)
    .join(',')}}`;
}
