import type { RequestHandler } from 'express';
import type { Pool } from 'pg';
import { notingStatements } from '../db/cancel.ts';

/** What is written may well be finished for somebody who has gone on to another page, but is not waited for longer than this. */
const GRACE_MS = 5000;
const READS = new Set(['GET', 'HEAD']);

/** Stops what a request asks of the database once nobody waits for its answer: what it reads at once, what it writes after a while. */
export function stopWithClient(pool: Pool): RequestHandler {
  return (req, res, next) => {
    const statements = notingStatements(next);
    const stop = () => {
      for (const { processID } of statements)
        void pool.query('select pg_cancel_backend($1)', [processID]).catch(() => undefined);
    };
    res.once('close', () => {
      if (!res.writableFinished) setTimeout(stop, READS.has(req.method) ? 0 : GRACE_MS).unref();
    });
  };
}
