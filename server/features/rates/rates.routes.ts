import { Router, type Request, type Response } from 'express';
import { askCorrectionSchema, correctionsAnswer, decideCorrectionSchema } from '../../../contract/rates.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, numberParam } from '../../platform/http/guards.ts';
import { askCorrection, confirmCorrection, dropCorrection, viewCorrections } from './rates.service.ts';

/** Corrections of published rates, by two people. */
export function rateRoutes(context: Context): Router {
  const router = Router();
  const shown = async (req: Request, res: Response, status = 200) =>
    answer(res, correctionsAnswer, await viewCorrections(context, actorOf(req)), status);
  const seen = (req: Request) => ({
    id: numberParam(req, 'id', 'correction'),
    revision: checked(decideCorrectionSchema, req.body).revision,
  });
  router.get('/rate-corrections', (req, res) => shown(req, res));
  router.post('/rate-corrections', async (req, res) => {
    await askCorrection(context, actorOf(req), checked(askCorrectionSchema, req.body));
    await shown(req, res, 201);
  });
  router.post('/rate-corrections/:id/confirm', async (req, res) => {
    await confirmCorrection(context, actorOf(req), seen(req));
    await shown(req, res);
  });
  router.post('/rate-corrections/:id/drop', async (req, res) => {
    await dropCorrection(context, actorOf(req), seen(req));
    await shown(req, res);
  });
  return router;
}
