import { AsyncLocalStorage } from 'node:async_hooks';
import PostgresClient from 'knex/lib/dialects/postgres/index.js';

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

/** Does work for a request, and says which connections have its statements running as they come and go. */
export function notingStatements(work: () => void): ReadonlySet<Connection> {
  const statements = new Set<Connection>();
  running.run(statements, work);
  return statements;
}
