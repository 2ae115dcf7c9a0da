import type { Db } from './db/connect.ts';
import type { Jobs } from './jobs/jobs.ts';
import type { Bank } from './ports/bank.ts';
import type { Clock } from './ports/clock.ts';
import type { Reader } from './outside/reading/reader.ts';

/** What every service needs from outside. */
export interface Context {
  db: Db;
  clock: Clock;
}

/** What the server's own processes have besides: the reader of files from outside, the queue, where the bank answers. */
export interface Services extends Context {
  reader: Reader;
  jobs: Jobs;
  /** Null where no bank is connected. */
  bank: Bank | null;
}

export type Role = 'claimant' | 'preparer' | 'approver' | 'reviewer' | 'controller' | 'administrator' | 'auditor';

/** The person who acts, as read from the database for this request. */
export interface Actor {
  id: string;
  name: string;
  roles: ReadonlySet<Role>;
}

export const FINANCE: readonly Role[] = ['reviewer', 'controller', 'auditor'];
export const hasAny = (actor: Actor, roles: readonly Role[]): boolean => roles.some((role) => actor.roles.has(role));
