import { Router, type Request, type Response } from 'express';
import { cardsAnswer, chargeMarkSchema, chargesAnswer, monthAnswer, seenSchema } from '../../../contract/gather.ts';
import { seenQuery } from '../../../contract/primitives.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, numberParam, param } from '../../platform/http/guards.ts';
import { closeMonth, markCharge, reopenMonth, viewCards, viewCharges, viewMonth } from './cards.service.ts';

/** Charges of a person's cards, and cards month by month. */
export function cardRoutes(context: Context): Router {
  const router = Router();
  const monthOf = (req: Request) => ({ card: param(req, 'card'), month: param(req, 'month') });
  const sendMonth = async (req: Request, res: Response) => {
    const { card, month } = monthOf(req);
    answer(res, monthAnswer, (await viewMonth(context, actorOf(req), card, month)) as never);
  };

  router.get('/charges', async (req, res) => {
    answer(res, chargesAnswer, (await viewCharges(context, actorOf(req))) as never);
  });
  router.put('/charges/:id/mark', async (req, res) => {
    await markCharge(context, actorOf(req), numberParam(req, 'id', 'charge'), checked(chargeMarkSchema, req.body));
    answer(res, chargesAnswer, (await viewCharges(context, actorOf(req))) as never);
  });
  router.get('/cards', async (req, res) => {
    answer(res, cardsAnswer, (await viewCards(context, actorOf(req))) as never);
  });
  router.get('/cards/:card/months/:month', sendMonth);
  router.put('/cards/:card/months/:month/closed', async (req, res) => {
    await closeMonth(context, actorOf(req), { ...monthOf(req), ...checked(seenSchema, req.body) });
    await sendMonth(req, res);
  });
  router.delete('/cards/:card/months/:month/closed', async (req, res) => {
    await reopenMonth(context, actorOf(req), { ...monthOf(req), ...checked(seenQuery, req.query) });
    await sendMonth(req, res);
  });
  return router;
}
