import knex, { type Knex } from 'knex';
import pg from 'pg';

export type Db = Knex;

// Amounts are bigint in the database and stay exact here; dates stay the text they are; numerics stay decimal strings.
pg.types.setTypeParser(pg.types.builtins.INT8, (text) => BigInt(text));
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);

/** A pool on a PostgreSQL URL. Bound values are kept out of error messages, since they may be personal. */
export function connect(url: string, pool: { min: number; max: number } = { min: 0, max: 16 }): Db {
  return knex({ client: 'pg', connection: url, pool, compileSqlOnError: false });
}
