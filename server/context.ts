import type { Db } from './db/connect.ts';
import type { Clock } from './ports/clock.ts';

/** What every service needs from outside. */
export interface Context {
  db: Db;
  clock: Clock;
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
