/** An event as a row of the database; its hash is made of all of it. */
export interface EventRecord {
  record_kind: string;
  record_id: bigint;
  seq: number;
  at: Date;
  actor_id: string;
  kind: string;
  facts: Record<string, unknown>;
  private_hash: string | null;
  previous_hash: string;
}
