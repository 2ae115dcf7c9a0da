import { Router } from 'express';
import { pairSchema, pairsAnswer, takenAnswer, takeSchema, unpairSchema } from '../../../contract/gather.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked } from '../../platform/http/guards.ts';
import { acceptPairs, undoPairs } from './acceptPairs.service.ts';
import { viewPairs } from './pairs.service.ts';
import { takeOnClaim } from './take.service.ts';

/** From what was gathered to the lines of claims in preparation. */
export function gatherRoutes(context: Context): Router {
  const router = Router();

  router.post('/drafts/lines', async (req, res) => {
    answer(res, takenAnswer, { number: await takeOnClaim(context, actorOf(req), checked(takeSchema, req.body)) }, 201);
  });
  router.get('/pairs', async (req, res) => {
    answer(res, pairsAnswer, (await viewPairs(context, actorOf(req))) as never);
  });
  router.post('/pairs', async (req, res) => {
    await acceptPairs(context, actorOf(req), checked(pairSchema, req.body));
    answer(res, pairsAnswer, (await viewPairs(context, actorOf(req))) as never);
  });
  router.post('/pairs/undo', async (req, res) => {
    await undoPairs(context, actorOf(req), checked(unpairSchema, req.body));
    answer(res, pairsAnswer, (await viewPairs(context, actorOf(req))) as never);
  });
  return router;
}
