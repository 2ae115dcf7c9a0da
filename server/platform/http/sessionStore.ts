import connectPgSimple from 'connect-pg-simple';
import session, { type SessionData, type Store } from 'express-session';
import type { Pool } from 'pg';

const MINUTE = 60_000;

/**
 * Sessions in PostgreSQL. That somebody is still there is written once a minute at most: else everything that is read would
 * be a write too. A session may so end up to a minute early.
 */
export function sessionStore(pool: Pool): Store {
  const PgStore = connectPgSimple(session);
  const store = new PgStore({ pool, tableName: 'sessions', createTableIfMissing: false, pruneSessionInterval: 900 });
  const prolong = store.touch!.bind(store);
  let minute = 0;
  let written = new Set<string>();
  store.touch = (id: string, data: SessionData, done?: () => void) => {
    const now = Math.floor(Date.now() / MINUTE);
    if (now !== minute) [minute, written] = [now, new Set()];
    if (written.has(id)) return done?.();
    written.add(id);
    prolong(id, data, done);
  };
  return store;
}
