import { AsyncLocalStorage } from 'node:async_hooks';
import type { RequestHandler } from 'express';
import PostgresClient from 'knex/lib/dialects/postgres/index.js';
import type { Pool } from 'pg';

/** A connection of the driver, as far as its running statement is stopped. */
interface Connection {
  processID: number;
}
/** The connections on which a request has a statement running now. */
const running = new AsyncLocalStorage<Set<Connection>>();

/** Knex's client for PostgreSQL, which notes the request that each statement runs for. */
export class NotingClient extends PostgresClient {
  override async _query(connection: Connection, query: object): Promise<object> {
    const statements = running.getStore();
    statements?.add(connection);
    try {
      return await super._query(connection, query);
    } finally {
      statements?.delete(connection);
    }
  }
}

/** What is written may well be finished for somebody who has gone on to another page, but is not waited for longer than this. */
const GRACE_MS = 5000;
const READS = new Set(['GET', 'HEAD']);

/** Stops what a request asks of the database once nobody waits for its answer: what it reads at once, what it writes after a while. */
export function stopWithClient(pool: Pool): RequestHandler {
  return (req, res, next) => {
    const statements = new Set<Connection>();
    const stop = () => {
      for (const { processID } of statements)
        void pool.query('select pg_cancel_backend($1)', [processID]).catch(() => undefined);
    };
    res.once('close', () => {
      if (!res.writableFinished) setTimeout(stop, READS.has(req.method) ? 0 : GRACE_MS).unref();
    });
    running.run(statements, next);
  };
}
