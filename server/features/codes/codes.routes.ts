import { Router, type Request, type Response } from 'express';
import { favouriteSchema, ownCodesAnswer, saveCodingSchema } from '../../../contract/codes.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, numberParam } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import {
  forgetCoding,
  keepFavourite,
  saveCoding,
  selectCodings,
  selectFavourites,
  selectRecentCodes,
} from './codes.queries.ts';

/** Codes as one person uses them. They are a convenience of theirs, so they have no history. */
export function codeRoutes({ db, clock }: Context): Router {
  const router = Router();
  const sendOwn = async (req: Request, res: Response) => {
    const { id } = actorOf(req);
    const [recent, favourites, codings] = await Promise.all([
      selectRecentCodes(db, id),
      selectFavourites(db, id),
      selectCodings(db, id, today(clock)),
    ]);
    answer(res, ownCodesAnswer, { recent, favourites, codings });
  };
  router.get('/own/codes', sendOwn);
  router.put('/own/codes/favourites', async (req, res) => {
    await keepFavourite(db, actorOf(req).id, checked(favouriteSchema, req.body));
    await sendOwn(req, res);
  });
  router.post('/own/codes/codings', async (req, res) => {
    await saveCoding(db, actorOf(req).id, checked(saveCodingSchema, req.body));
    await sendOwn(req, res);
  });
  router.delete('/own/codes/codings/:id', async (req, res) => {
    const [owner, id] = [actorOf(req).id, numberParam(req, 'id', 'coding')];
    const gone = await inTransaction({ db }, (trx) => forgetCoding(trx, owner, id));
    if (!gone) throw new Refused('not-found', { what: 'coding' });
    await sendOwn(req, res);
  });
  return router;
}
