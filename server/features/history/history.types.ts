/** The parts of an event its hash is made of. */
export interface ChainedEvent {
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
