import { Router } from 'express';
import { z } from 'zod';
import type { Context } from '../../platform/context.ts';
import { actorOf, checked, numberParam, param } from '../../platform/http/guards.ts';
import { closeMonth, markCharge, reopenMonth, viewCards, viewCharges, viewMonth } from './cards.service.ts';

const markSchema = z.strictObject({
  reason: z.string().trim().min(1, 'Say where it was claimed.').max(300).nullable(),
});

/** Charges of a person's cards, and cards month by month. */
export function cardRoutes(context: Context): Router {
  const router = Router();
  router.get('/charges', async (req, res) => {
    res.json(await viewCharges(context, actorOf(req)));
  });
  router.put('/charges/:id/mark', async (req, res) => {
    await markCharge(context, actorOf(req), numberParam(req, 'id', 'charge'), checked(markSchema, req.body).reason);
    res.json(await viewCharges(context, actorOf(req)));
  });
  router.get('/cards', async (req, res) => {
    res.json(await viewCards(context, actorOf(req)));
  });
  router.get('/cards/:card/months/:month', async (req, res) => {
    res.json(await viewMonth(context, actorOf(req), param(req, 'card'), param(req, 'month')));
  });
  router.put('/cards/:card/months/:month/closed', async (req, res) => {
    await closeMonth(context, actorOf(req), param(req, 'card'), param(req, 'month'));
    res.json(await viewMonth(context, actorOf(req), param(req, 'card'), param(req, 'month')));
  });
  router.delete('/cards/:card/months/:month/closed', async (req, res) => {
    await reopenMonth(context, actorOf(req), param(req, 'card'), param(req, 'month'));
    res.json(await viewMonth(context, actorOf(req), param(req, 'card'), param(req, 'month')));
  });
  return router;
}
