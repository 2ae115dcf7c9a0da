import { Router, type RequestHandler } from 'express';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import type { Db } from '../db/connect.ts';
import { Refused } from './refusal.ts';

/** What somebody who runs the server looks at: whether it is well, and its figures for Prometheus. */
export interface Watch {
  /** Counts every request with its answer. */
  counting: RequestHandler;
  /** /healthz and /metrics. */
  routes(db: Db, readers: () => { waiting: number; running: number }, closing: { begun: boolean }): Router;
}

/**
 * Requests by method and status, refusals, jobs that wait with the age of the oldest, readers of files, postings. Nothing in
 * it tells of a person, a claim or an amount.
 */
export function createWatch(): Watch {
  const register = new Registry();
  collectDefaultMetrics({ register, prefix: 'ebbet_' });
  const labels = ['method', 'status'] as const;
  const seconds = new Histogram({
    name: 'ebbet_request_seconds',
    help: 'Requests by method and status, with the time they took',
    labelNames: labels,
    buckets: [0.01, 0.05, 0.1, 0.5, 1, 5],
    registers: [register],
  });
  const refusals = new Counter({
    name: 'ebbet_refusals_total',
    help: 'Requests that were refused, by the code of the refusal',
    labelNames: ['code'] as const,
    registers: [register],
  });
  return {
    counting(req, res, next) {
      const done = seconds.startTimer();
      res.once('finish', () => {
        done({ method: req.method, status: res.statusCode });
        if (res.locals.refused) refusals.inc({ code: res.locals.refused as string });
      });
      next();
    },
    routes(db, readers, closing) {
      const gauges = gaugesOf(register);
      const router = Router();
      router.get('/healthz', async (_req, res) => {
        // who is about to stop, or waits too long for the database, is not sent anybody
        const well = !closing.begun && (await within(WELL_MS, db.raw('select 1')));
        if (!well) throw new Refused('away', { seconds: 5 });
        res.json({ state: 'well' });
      });
      router.get('/metrics', async (req, res) => {
        // Behind a proxy the figures are for whoever sits beside the server, not for the world.
        if (PROXIED.some((header) => req.get(header))) throw new Refused('not-found', { what: 'such address' });
        await gauges.measure(db, readers());
        res.type(register.contentType).send(await register.metrics());
      });
      return router;
    },
  };
}

const WELL_MS = 2000;
/** What proxies say of whom they pass on (RFC 7239, RFC 9110, and what they said before). */
const PROXIED = ['forwarded', 'via', 'x-forwarded-for', 'x-forwarded-host', 'x-forwarded-proto', 'x-real-ip'];

/** Whether something came to a good end within so many milliseconds. */
const within = (ms: number, work: PromiseLike<unknown>): Promise<boolean> =>
  new Promise((resolve) => {
    const late = setTimeout(() => resolve(false), ms);
    void Promise.resolve(work)
      .then(
        () => resolve(true),
        () => resolve(false),
      )
      .finally(() => clearTimeout(late));
  });

function gaugesOf(register: Registry) {
  const gauge = (name: string, help: string) => new Gauge({ name: `ebbet_${name}`, help, registers: [register] });
  const waiting = gauge('jobs_waiting', 'Jobs that wait');
  const oldest = gauge('oldest_job_seconds', 'Age of the job that waits longest');
  const failed = gauge('jobs_failed', 'Jobs that failed for good');
  const journals = gauge('journals', 'Journals posted');
  const files = gauge('files_waiting', 'Files that wait for a reader');
  const reading = gauge('files_reading', 'Files that are read now');
  return {
    async measure(db: Db, readers: { waiting: number; running: number }) {
      const { rows } = await db.raw(`
        select count(*) filter (where state in ('created', 'retry') and start_after <= now())::int as waiting,
          coalesce(extract(epoch from now() - min(start_after) filter (where state in ('created', 'retry') and start_after <= now())), 0)::float as oldest,
          count(*) filter (where state = 'failed')::int as failed,
          (select coalesce(sum(last), 0)::int from journal_numbers) as journals
        from pgboss.job`);
      const [now] = rows as [{ waiting: number; oldest: number; failed: number; journals: number }];
      waiting.set(now.waiting);
      oldest.set(now.oldest);
      failed.set(now.failed);
      journals.set(now.journals);
      files.set(readers.waiting);
      reading.set(readers.running);
    },
  };
}
