import { Router } from 'express';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  columnsAnswer,
  columnsSchema,
  deskFilter,
  entitiesAnswer,
  hereAnswer,
  listSchema,
  nextAnswer,
  nextSchema,
  queueAnswer,
  saveViewSchema,
  viewsAnswer,
} from '../../../contract/desk.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { entitiesOf, type Actor, type Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { byItself } from '../../platform/http/byItself.ts';
import { actorOf, checked, numberParam, param } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectEntities } from './desk.queries.ts';
import { viewQueue, writeQueueCsv } from './desk.service.ts';
import { sayHere, sayLeft, takeNext } from './here.service.ts';
import { countOtherViews, deleteView, selectColumns, selectViews, upsertColumns, upsertView } from './views.queries.ts';

const MOST_VIEWS = 100;

/** The Desk: the queue with its filters, those that are kept, and who has a claim open. */
export function deskRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  router.get('/claims', async (req, res) => {
    answer(res, queueAnswer, (await viewQueue(context, actorOf(req), checked(listSchema, req.query))) as never);
  });
  router.get('/claims.csv', async (req, res) => {
    const rows = writeQueueCsv(context, actorOf(req), checked(deskFilter, req.query));
    res.type('text/csv').attachment('claims.csv');
    await pipeline(Readable.from(rows), res);
  });
  router.get('/desk/entities', async (req, res) => {
    answer(res, entitiesAnswer, { entities: await selectEntities(db, entitiesOf(actorOf(req), FINANCE)) });
  });

  const views = async ({ id }: Actor) => ({ views: await selectViews(db, id) });
  router.get('/desk/views', async (req, res) => {
    answer(res, viewsAnswer, await views(actorOf(req)));
  });
  router.post('/desk/views', async (req, res) => {
    const actor = actorOf(req);
    const view = checked(saveViewSchema, req.body);
    if ((await countOtherViews(db, actor.id, view.name)) >= MOST_VIEWS)
      throw new Refused('many-kept', { most: String(MOST_VIEWS) });
    await upsertView(db, actor.id, view);
    answer(res, viewsAnswer, await views(actor), 201);
  });
  router.delete('/desk/views/:id', async (req, res) => {
    const actor = actorOf(req);
    const id = numberParam(req, 'id', 'view');
    const gone = await inTransaction({ db }, (trx) => deleteView(trx, actor.id, id));
    if (!gone) throw new Refused('not-found', { what: 'view' });
    answer(res, viewsAnswer, await views(actor));
  });

  router.get('/desk/columns', async (req, res) => {
    answer(res, columnsAnswer, { columns: await selectColumns(db, actorOf(req).id) });
  });
  router.put('/desk/columns', async (req, res) => {
    const { columns } = checked(columnsSchema, req.body);
    await upsertColumns(db, actorOf(req).id, columns);
    answer(res, columnsAnswer, { columns });
  });
  router.post('/desk/next', async (req, res) => {
    const { numbers } = checked(nextSchema, req.body);
    answer(res, nextAnswer, { number: await takeNext(context, actorOf(req), numbers) });
  });
  router.post('/claims/:number/here', byItself, async (req, res) => {
    answer(res, hereAnswer, await sayHere(context, actorOf(req), param(req, 'number')));
  });
  router.delete('/claims/:number/here', async (req, res) => {
    answer(res, hereAnswer, await sayLeft(context, actorOf(req), param(req, 'number')));
  });
  return router;
}
