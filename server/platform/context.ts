import type { ActingPerson, Role } from '../../core/workflow/lifecycle.types.ts';
import type { Db } from './db/connect.ts';
import type { Jobs } from './jobs/jobs.ts';
import type { Logger } from 'pino';
import type { Live } from './live/live.ts';
import type { Bank } from './ports/bank.ts';
import type { Mailer } from './ports/mail.ts';
import type { Clock } from './ports/clock.ts';
import type { Reader } from './outside/reader.ts';

/** What every service needs from outside. */
export interface Context {
  db: Db;
  clock: Clock;
  /** Work that follows a transaction: asked for inside it, done once it has committed. */
  jobs: Jobs;
  /** The key by which events are marked as written by the application; it is not in the database. Without one they are not. */
  historyKey?: string | null;
}

/** Where the ends of the history's chains are kept away from the database: a folder, mailboxes, or both. */
export interface SealPlaces {
  folder: string | null;
  mailboxes: readonly string[];
}

/** What the server's own processes have besides: the reader of files from outside, where the bank answers, where mail goes. */
export interface Services extends Context {
  reader: Reader;
  /** Null where no bank is connected. */
  bank: Bank | null;
  /** Null where mail cannot be sent. */
  mailer: Mailer | null;
  /** Where people reach the application, for links in mails; without a slash at its end. */
  publicUrl: string;
  seals: SealPlaces;
  log: Logger;
  /** Wakes who waits for something new. */
  live: Live;
}

/** A role of a person, for one entity or (null) for all. */
export interface Grant {
  role: Role;
  entity: string | null;
}

/** The person who acts, as read from the database for this request. */
export interface Actor extends ActingPerson {
  id: string;
  name: string;
  email: string;
  /** `needed`: roles of finance are not theirs before they sign in with a second factor. */
  factor: 'on' | 'off' | 'needed';
  grants: readonly Grant[];
  /** What they brought: the id of their session, or their token. The history names nobody without. */
  proof?: string;
}

/** An actor from the grants that hold today. */
export const actorWith = (
  person: Pick<Actor, 'id' | 'name' | 'email' | 'factor' | 'standsFor'>,
  grants: readonly Grant[],
): Actor => ({
  ...person,
  grants,
  holds: (role, entity) =>
    grants.some((g) => g.role === role && (g.entity === null || entity === null || g.entity === entity)),
});

export const hasAny = (actor: Actor, roles: readonly Role[]): boolean => roles.some((role) => actor.holds(role, null));

/** The entities for which somebody holds one of the roles; null for all of them. */
export function entitiesOf(actor: Actor, roles: readonly Role[]): string[] | null {
  const held = actor.grants.filter((g) => roles.includes(g.role));
  return held.some((g) => g.entity === null) ? null : [...new Set(held.map((g) => g.entity!))];
}
