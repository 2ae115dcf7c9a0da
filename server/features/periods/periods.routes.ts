import { Router, type Request, type Response } from 'express';
import { closePeriodSchema, periodsAnswer, reopenPeriodSchema } from '../../../contract/periods.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { entitiesOf, type Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, param } from '../../platform/http/guards.ts';
import { selectPeriodList } from './periods.queries.ts';
import { closePeriod, reopenPeriod } from './periods.service.ts';

/** Periods of the ledger: seen by finance, closed and opened again by controllers. */
export function periodRoutes(context: Context): Router {
  const router = Router();
  const send = async (req: Request, res: Response) =>
    answer(res, periodsAnswer, { periods: await selectPeriodList(context.db, entitiesOf(actorOf(req), FINANCE)) });
  const keyOf = (req: Request) => ({ entity: param(req, 'entity'), id: param(req, 'id') });

  router.get('/periods', send);
  router.post('/periods/:entity/:id/close', async (req, res) => {
    await closePeriod(context, actorOf(req), { ...keyOf(req), ...checked(closePeriodSchema, req.body) });
    await send(req, res);
  });
  router.post('/periods/:entity/:id/reopen', async (req, res) => {
    await reopenPeriod(context, actorOf(req), { ...keyOf(req), ...checked(reopenPeriodSchema, req.body) });
    await send(req, res);
  });
  return router;
}
