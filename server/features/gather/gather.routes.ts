import { Router } from 'express';
import { z } from 'zod';
import type { Context } from '../../platform/context.ts';
import { actorOf, checked, needs, param } from '../../platform/http/guards.ts';
import { viewClaim } from '../claims/view.service.ts';
import { editLine, removeLine } from './draft.service.ts';
import { lineSchema, pairSchema, takeSchema, unpairSchema } from './gather.schema.ts';
import { acceptPairs, undoPairs, viewPairs } from './pairs.service.ts';
import { takeOnClaim } from './take.service.ts';

const removeSchema = z.strictObject({ revision: z.coerce.number().int().min(1) });

/** From what was gathered to the lines of drafts. */
export function gatherRoutes(context: Context): Router {
  const router = Router();
  const claimant = needs('claimant', 'preparer');

  router.post('/drafts/lines', claimant, async (req, res) => {
    res.status(201).json({ number: await takeOnClaim(context, actorOf(req), checked(takeSchema, req.body)) });
  });
  router.put('/drafts/:number/lines/:line', claimant, async (req, res) => {
    await editLine(context, actorOf(req), param(req, 'number'), param(req, 'line'), checked(lineSchema, req.body));
    res.json(await viewClaim(context, actorOf(req), param(req, 'number')));
  });
  router.delete('/drafts/:number/lines/:line', claimant, async (req, res) => {
    await removeLine(
      context,
      actorOf(req),
      param(req, 'number'),
      param(req, 'line'),
      checked(removeSchema, req.query).revision,
    );
    res.json(await viewClaim(context, actorOf(req), param(req, 'number')));
  });
  router.get('/pairs', claimant, async (req, res) => {
    res.json(await viewPairs(context, actorOf(req)));
  });
  router.post('/pairs', claimant, async (req, res) => {
    await acceptPairs(context, actorOf(req), checked(pairSchema, req.body));
    res.json(await viewPairs(context, actorOf(req)));
  });
  router.post('/pairs/undo', claimant, async (req, res) => {
    await undoPairs(context, actorOf(req), checked(unpairSchema, req.body));
    res.json(await viewPairs(context, actorOf(req)));
  });
  return router;
}
