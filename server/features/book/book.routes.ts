import { Router } from 'express';
import type { Context } from '../../platform/context.ts';
import { actorOf } from '../../platform/http/guards.ts';
import { selectChart } from './chart.queries.ts';

export function bookRoutes({ db }: Context): Router {
  const router = Router();
  router.get('/chart', async (req, res) => {
    actorOf(req);
    res.json(await selectChart(db));
  });
  return router;
}
