import { Router } from 'express';
import type { Context } from '../../platform/context.ts';
import { chartAnswer } from '../../../contract/chart.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf } from '../../platform/http/guards.ts';
import { selectChart } from './chart.queries.ts';

export function bookRoutes({ db }: Context): Router {
  const router = Router();
  router.get('/chart', async (req, res) => {
    actorOf(req);
    answer(res, chartAnswer, await selectChart(db));
  });
  return router;
}
