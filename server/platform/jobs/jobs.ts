import type { Pool } from 'pg';
import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import type { Db } from '../db/connect.ts';
import { Refused } from '../http/refusal.ts';

/** What is done in the background, with what it needs to know. Jobs may come twice, so doing one twice changes nothing. */
export interface JobData {
  /** Reads a file; once more when it is quiet, where that took too long among others. */
  'read-receipt': { sha256: string; again?: true };
  'fetch-feed': Record<string, never>;
  /** Assesses the claims again that were assessed by something which changed. */
  'assess-claims': { key: string };
  'send-password-letter': { email: string };
  'send-seals': Record<string, never>;
  /** Ends approved plans of which no claim came in time. */
  'lapse-plans': Record<string, never>;
  /** Clears the claims of a run that are left, in the name of who began it. */
  'clear-claims': { run: string; secret: string };
  /** Puts claims whose hold is over back in their place. */
  'end-holds': Record<string, never>;
  /** Sends what waits to be mailed at once. */
  'send-mail': Record<string, never>;
  /** Sends those who want one mail a day theirs, when their day begins. */
  'send-digests': Record<string, never>;
  /** Tells substitutes what waits for those they stand in for. */
  'tell-substitutes': Record<string, never>;
  'forget-keys': Record<string, never>;
  /** Sends records on to who decides in the place of those they wait for. */
  'go-on-with-routes': Record<string, never>;
  /** Reminds of advances that are to be accounted for. */
  'remind-advances': Record<string, never>;
}
export type JobName = keyof JobData;
export const JOB_NAMES: readonly JobName[] = [
  'read-receipt',
  'fetch-feed',
  'assess-claims',
  'send-password-letter',
  'send-seals',
  'lapse-plans',
  'clear-claims',
  'end-holds',
  'send-mail',
  'send-digests',
  'tell-substitutes',
  'forget-keys',
  'go-on-with-routes',
  'remind-advances',
];

/** The queue in the database: what is asked in a transaction happens if it commits, and outlives every process. */
export interface Jobs {
  /** Nothing follows what is done here, and it is not mailed either: the demo is loaded. */
  quiet?: boolean;
  /** Of jobs that wait, those of a higher priority come first; 0 is usual. */
  ask<N extends JobName>(trx: Db, name: N, data: JobData[N], priority?: number): Promise<void>;
}
export interface RunningJobs extends Jobs {
  work<N extends JobName>(name: N, run: (data: JobData[N]) => Promise<void>): Promise<void>;
  /** Asks for a job by a crontab line (UTC), once for all server processes. */
  every<N extends JobName>(cron: string, name: N, data: JobData[N]): Promise<void>;
  /** Takes no more jobs; those that are under way go on. */
  pause(): Promise<void>;
  stop(): Promise<void>;
}
export interface JobLimits {
  /** After this long a job whose process has gone silent is given to another. */
  expireSeconds: number;
  /** How often silent jobs are looked for. */
  lookSeconds: number;
}
export const usualJobLimits: JobLimits = { expireSeconds: 120, lookSeconds: 30 };

const SCHEMA = 'pgboss';
const RETRIES = 5;
/** What waits for somebody outside is tried for hours, with pauses that grow: 5, 10, 20 seconds … */
const PATIENT: readonly JobName[] = ['send-password-letter', 'send-mail', 'send-digests', 'send-seals', 'fetch-feed'];
const patienceOf = (name: JobName) => (PATIENT.includes(name) ? { retryLimit: 11, retryDelay: 5 } : {});

/** Why a job failed, in the fewest words: a refusal's sentence, else its kind. */
function sayFailure(error: unknown): string {
  if (error instanceof Refused) return error.says;
  const { name = 'Error', code } = error as { name?: string; code?: string };
  return code ? `${name} ${code}` : name;
}

/** Why a job failed, for the log: no values, which may be personal. */
function failureOf(error: unknown): { name?: string; code?: string; at?: string } {
  const { name, code, stack } = error as { name?: string; code?: string; stack?: string };
  const at = stack
    ?.split('\n')
    .find((line) => /^\s+at /.test(line))
    ?.trim();
  return { ...(name ? { name } : {}), ...(code ? { code } : {}), ...(at ? { at } : {}) };
}

/** Starts the queue on tables that `installQueue` made. */
export async function startJobs(pool: Pool, log: Logger, limits: JobLimits = usualJobLimits): Promise<RunningJobs> {
  let stopped = false;
  const taken = new Set<JobName>();
  const db = { executeSql: (text: string, values: unknown[]) => pool.query(text, values) };
  const boss = new PgBoss({ db, schema: SCHEMA, migrate: false, maintenanceIntervalSeconds: limits.lookSeconds });
  boss.on('error', (error) => log.warn({ name: error.name, message: error.message }, 'queue'));
  await boss.start();
  const options = { expireInSeconds: limits.expireSeconds, retryLimit: RETRIES, retryDelay: 1, retryBackoff: true };
  return {
    async ask(trx, name, data, priority = 0) {
      await boss.send(name, data, { ...options, ...patienceOf(name), priority, db: inside(trx) });
    },
    async work(name, run) {
      taken.add(name);
      await boss.work(name, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async ([job]) => {
        const [outcome] = await Promise.allSettled([run(job!.data as never)]);
        if (outcome!.status === 'rejected' && !stopped)
          log.error({ job: name, id: job!.id, ...failureOf(outcome!.reason) }, 'a job failed; it is tried again');
        // A job that stopping cuts short tells nothing more: it counts as silent and is given to another process.
        if (stopped) await new Promise(() => {});
        // what is kept of a failure is as little as what is logged
        if (outcome!.status === 'rejected') throw new Error(sayFailure(outcome!.reason));
      });
    },
    async every(cron, name, data) {
      await boss.schedule(name, cron, data, { ...options, tz: 'UTC' });
    },
    async pause() {
      await Promise.all([...taken].map((name) => boss.offWork(name)));
    },
    stop() {
      stopped = true;
      return boss.stop({ graceful: false, wait: false, close: false });
    },
  };
}

/** Makes the queue's tables, as the owner, and lets the application use them. */
export async function installQueue(ownerUrl: string, db: Db): Promise<void> {
  const boss = new PgBoss({ connectionString: ownerUrl, schema: SCHEMA, supervise: false, schedule: false });
  await boss.start();
  for (const name of [...JOB_NAMES, '__pgboss__send-it']) await boss.createQueue(name);
  await boss.stop({ graceful: false, wait: false });
  await db.raw(`
    grant usage on schema ${SCHEMA} to ebbet_app;
    grant select, insert, update, delete on all tables in schema ${SCHEMA} to ebbet_app;
    grant execute on all functions in schema ${SCHEMA} to ebbet_app;
  `);
}

/** The queue's statements inside a transaction of ours; its numbered places become Knex's. */
const inside = (trx: Db) => ({
  async executeSql(text: string, values: unknown[]) {
    const order = [...text.matchAll(/\$(\d+)/g)].map((m) => values[Number(m[1]) - 1] ?? null);
    return trx.raw(text.replace(/\$\d+/g, '?'), order as never) as unknown as { rows: unknown[] };
  },
});
