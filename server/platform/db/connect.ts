import knex, { type Knex } from 'knex';
import pg from 'pg';
import type { Logger } from 'pino';
import { NotingClient } from './cancel.ts';

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

/** How many connections, and how long a statement may run; 0 is without an end, as migrations need. */
export interface Connecting {
  max?: number;
  statementSeconds?: number;
  /** Where Knex says what it finds worth saying; nowhere when it is left out, since every failure is thrown too. */
  log?: Pick<Logger, 'warn'>;
}

/** A pool on a PostgreSQL URL. Bound values are kept out of error messages, since they may be personal. */
export function connect(url: string, { max = 16, statementSeconds = 0, log }: Connecting = {}): Db {
  const limit = statementSeconds === 0 ? {} : { statement_timeout: statementSeconds * 1000 };
  return knex({
    client: NotingClient as unknown as typeof Knex.Client,
    connection: { connectionString: url, types, ...limit } as Knex.PgConnectionConfig,
    pool: { min: 0, max },
    acquireConnectionTimeout: 10_000,
    compileSqlOnError: false,
    log: { warn: said(log), error: said(log), deprecate: said(log), debug: said(log) },
  });
}

/** What Knex says, as a line of the log without its values. */
const said = (log: Pick<Logger, 'warn'> | undefined) => (message: unknown) =>
  log?.warn({ said: String(message).split('\n')[0]!.slice(0, 200) }, 'database');
