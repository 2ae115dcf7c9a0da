import type { Db } from '../../platform/db/connect.ts';

export interface FailedJobRow {
  id: string;
  name: string;
  since: Date;
  tries: number;
  why: string;
  next: Date | null;
}
const MOST = 200;

/** Jobs that failed and are tried again, or were given up, the newest first. */
export async function selectFailedJobs(db: Db): Promise<FailedJobRow[]> {
  const { rows } = await db.raw(
    `select id, name, created_on as since, retry_count + (state = 'failed')::int as tries, coalesce(output ->> 'message', 'it fell silent') as why,
       case when state = 'retry' then start_after end as next
     from pgboss.job where state in ('failed', 'retry') and name not like '\\_\\_%' order by created_on desc limit ?`,
    [MOST],
  );
  return rows;
}

/** Asks for a job once more that was given up; whether there was one. */
export async function askAgain(db: Db, id: string): Promise<boolean> {
  const { rowCount } = (await db.raw(
    `update pgboss.job set state = 'created', start_after = now(), retry_count = 0, completed_on = null, output = null, keep_until = now() + interval '14 days'
     where id = ? and state = 'failed'`,
    [id],
  )) as unknown as { rowCount: number };
  return rowCount > 0;
}
