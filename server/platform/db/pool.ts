import pg from 'pg';
import type { Logger } from 'pino';

/** A pool for packages that speak to PostgreSQL by themselves (sessions, limits, the queue). A lost idle connection is replaced. */
export function createPool(url: string, log: Logger, max = 6): pg.Pool {
  const pool = new pg.Pool({ connectionString: url, max, connectionTimeoutMillis: 10_000, statement_timeout: 30_000 });
  pool.on('error', (error) => log.warn({ name: error.name }, 'idle connection lost'));
  return pool;
}
