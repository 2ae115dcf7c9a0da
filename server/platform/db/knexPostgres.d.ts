/** Knex's own client for PostgreSQL; the package has no types for it. */
declare module 'knex/lib/dialects/postgres/index.js' {
  export default class PostgresClient {
    _query(connection: { processID: number }, query: object): Promise<object>;
  }
}
