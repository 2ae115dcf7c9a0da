import { Router, type Request } from 'express';
import {
  beginClearingSchema,
  clearingAnswer,
  clearingBegunAnswer,
  clearingsAnswer,
} from '../../../../contract/clearing.ts';
import type { Context } from '../../../platform/context.ts';
import { answer } from '../../../platform/http/answer.ts';
import { actorOf, checked, numberParam } from '../../../platform/http/guards.ts';
import { beginClearing, resumeClearing, stopClearing, viewClearing, viewClearings } from './clearing.service.ts';

/** Runs that clear claims together. */
export function clearingRoutes(context: Context): Router {
  const router = Router();
  const run = (req: Request) => String(numberParam(req, 'id', 'run'));
  router.get('/clearings', async (req, res) => {
    answer(res, clearingsAnswer, (await viewClearings(context, actorOf(req))) as never);
  });
  router.post('/clearings', async (req, res) => {
    const begun = await beginClearing(context, actorOf(req), checked(beginClearingSchema, req.body));
    answer(res, clearingBegunAnswer, begun, 201);
  });
  router.get('/clearings/:id', async (req, res) => {
    answer(res, clearingAnswer, (await viewClearing(context, actorOf(req), run(req))) as never);
  });
  router.post('/clearings/:id/stop', async (req, res) => {
    answer(res, clearingAnswer, (await stopClearing(context, actorOf(req), run(req))) as never);
  });
  router.post('/clearings/:id/resume', async (req, res) => {
    answer(res, clearingAnswer, (await resumeClearing(context, actorOf(req), run(req))) as never);
  });
  return router;
}
