import pg from 'pg';

export interface Statement {
  sql: string;
  values: unknown[] | undefined;
}

/** Every SQL statement that this process sends while a piece of work is done, through whichever pool. */
export async function statementsOf(work: () => Promise<unknown>): Promise<Statement[]> {
  const sent: Statement[] = [];
  const query = pg.Client.prototype.query;
  pg.Client.prototype.query = function (this: pg.Client, ...args: unknown[]) {
    const [first, second] = args as [string | { text: string; values?: unknown[] }, unknown];
    if (typeof first === 'string') sent.push({ sql: first, values: Array.isArray(second) ? second : undefined });
    else sent.push({ sql: first.text, values: first.values });
    return (query as (...all: unknown[]) => unknown).apply(this, args);
  } as typeof query;
  try {
    await work();
  } finally {
    pg.Client.prototype.query = query;
  }
  return sent;
}
