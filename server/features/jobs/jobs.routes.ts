import { Router } from 'express';
import { z } from 'zod';
import { againSchema, failedJobsAnswer } from '../../../contract/jobs.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { checked, param } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { askAgain, selectFailedJobs } from './jobs.queries.ts';

/** What failed in the background, for who looks after the organisation. */
export function jobRoutes({ db }: Pick<Context, 'db'>): Router {
  const router = Router();
  router.get('/failed-jobs', async (_req, res) => {
    answer(res, failedJobsAnswer, { jobs: await selectFailedJobs(db) });
  });
  router.post('/failed-jobs/:id/again', async (req, res) => {
    checked(againSchema, req.body);
    const id = z.uuid().safeParse(param(req, 'id'));
    const asked = id.success && (await inTransaction({ db }, (trx) => askAgain(trx, id.data)));
    if (!asked) throw new Refused('not-found', { what: 'job that was given up' });
    answer(res, failedJobsAnswer, { jobs: await selectFailedJobs(db) });
  });
  return router;
}
