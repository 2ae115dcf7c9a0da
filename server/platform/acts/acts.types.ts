import type { ActingPerson, ActRecord } from '../../../core/workflow/lifecycle.types.ts';
import type { JobData, JobName } from '../jobs/jobs.ts';
import type { Db } from '../db/connect.ts';
import type { ToldAbout } from '../messages/tell.ts';

/** A record locked for an act: what the lifecycle judges, under which id its history stands, and how often it changed. */
export interface LockedRecord<State extends string = string> extends ActRecord<State> {
  id: string;
  /** How people name it. */
  name: string;
  revision: number;
}

/** How one kind of record is locked and saved; a kind has one. */
export interface RecordStore<State extends string, Row extends LockedRecord<State>, Key> {
  /** Locks the record until the transaction ends; undefined when there is none. */
  lock(trx: Db, key: Key): Promise<Row | undefined>;
  /** Writes state, revision and what else the act changes in the record's own row. */
  save(trx: Db, record: Row, changes: Record<string, unknown>): Promise<void>;
  /** Whether the record exists for somebody at all; without it a stranger is told that there is none. */
  exists(record: Row, actor: ActingPerson): boolean;
  /** Of a kind whose acts are told: who is what to the record, and what is said of it, once these columns are changed. */
  told?(record: Row, columns: Record<string, unknown>): { people: ActRecord['people']; about: ToldAbout };
}

/** What an act's own work comes to, besides what it wrote itself. */
export interface Outcome<Result> {
  result: Result;
  /** Nothing was to be done: no revision, no event. */
  unchanged?: true;
  /** Facts of the event: they stay for ever, so nothing personal. */
  facts?: Record<string, unknown>;
  /** Words that may be personal: kept beside the event, removable without breaking the chain. */
  words?: Record<string, unknown> | null;
  /** SHA-256 of the document, journal or file the event is about. */
  about?: string | null;
  /** Columns of the record's own row. */
  columns?: Record<string, unknown>;
  /** What is to follow once this has committed. */
  jobs?: readonly Asked[];
}
export type Asked = { [N in JobName]: { name: N; data: JobData[N] } }[JobName];
