import knex, { type Knex } from 'knex';
import pg from 'pg';

export type Db = Knex;

// Amounts are bigint in the database and stay exact here; dates stay the text they are; numerics are decimal strings
// by themselves. Only for these connections: packages with pools of their own expect the driver's usual types.
const PARSERS: Record<number, (text: string) => unknown> = {
  [pg.types.builtins.INT8]: BigInt,
  [pg.types.builtins.DATE]: String,
};
const types = {
  getTypeParser: (oid: number, format?: 'text' | 'binary') =>
    PARSERS[oid] ?? (pg.types.getTypeParser as (o: number, f?: string) => unknown)(oid, format),
};

/** A pool on a PostgreSQL URL. Bound values are kept out of error messages, since they may be personal. */
export function connect(url: string, pool: { min: number; max: number } = { min: 0, max: 16 }): Db {
  return knex({
    client: 'pg',
    connection: { connectionString: url, types } as Knex.PgConnectionConfig,
    pool,
    acquireConnectionTimeout: 10_000,
    compileSqlOnError: false,
  });
}
