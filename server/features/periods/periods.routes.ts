import { Router, type Request, type Response } from 'express';
import { closePeriodSchema, periodsAnswer, reopenPeriodSchema } from '../../../contract/periods.ts';
import { entitiesOf, FINANCE, type Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, needs, param } from '../../platform/http/guards.ts';
import { selectPeriodList } from './periods.queries.ts';
import { closePeriod, reopenPeriod } from './periods.service.ts';

/** Periods of the ledger: seen by finance, closed and opened again by controllers. */
export function periodRoutes(context: Context): Router {
  const router = Router();
  const send = async (req: Request, res: Response) =>
    answer(res, periodsAnswer, { periods: await selectPeriodList(context.db, entitiesOf(actorOf(req), FINANCE)) });
  const keyOf = (req: Request) => ({ entity: param(req, 'entity'), id: param(req, 'id') });

  router.get('/periods', needs(...FINANCE), send);
  router.post('/periods/:entity/:id/close', needs('controller'), async (req, res) => {
    await closePeriod(context, actorOf(req), { ...keyOf(req), ...checked(closePeriodSchema, req.body) });
    await send(req, res);
  });
  router.post('/periods/:entity/:id/reopen', needs('controller'), async (req, res) => {
    await reopenPeriod(context, actorOf(req), { ...keyOf(req), ...checked(reopenPeriodSchema, req.body) });
    await send(req, res);
  });
  return router;
}
