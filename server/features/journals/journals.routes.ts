import { Router } from 'express';
import { postedAnswer, postSchema } from '../../../contract/claims.ts';
import {
  exportSchema,
  journalAnswer,
  journalPageSchema,
  journalsAnswer,
  readyAnswer,
  reverseSchema,
} from '../../../contract/journals.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { entitiesOf, type Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, param } from '../../platform/http/guards.ts';
import { writeJournalCsv } from './exportJournals.ts';
import { selectExport } from './ledger.queries.ts';
import { viewJournal, viewJournals, viewReady } from './ledger.service.ts';
import { postClaim, reverseJournal } from './post.service.ts';

/** The ledger: journals to read, post, reverse and download. */
export function journalRoutes(context: Context): Router {
  const router = Router();
  router.get('/journals', async (req, res) => {
    const page = checked(journalPageSchema, req.query);
    answer(res, journalsAnswer, (await viewJournals(context, actorOf(req), page)) as never);
  });
  router.get('/journals/ready', async (req, res) => {
    answer(res, readyAnswer, await viewReady(context, actorOf(req)));
  });
  router.get('/journals/export.csv', async (req, res) => {
    const { entity, from, to } = checked(exportSchema, req.query);
    const allowed = entitiesOf(actorOf(req), FINANCE);
    const entities = entity ? [entity].filter((e) => allowed === null || allowed.includes(e)) : allowed;
    const rows = await selectExport(context.db, { entities, from: from ?? null, to: to ?? null });
    res.type('text/csv').attachment('ledger.csv').send(writeJournalCsv(rows));
  });
  router.get('/journals/:number', async (req, res) => {
    answer(res, journalAnswer, await viewJournal(context, actorOf(req), param(req, 'number')));
  });
  router.post('/claims/:number/post', async (req, res) => {
    const posted = await postClaim(context, actorOf(req), param(req, 'number'), checked(postSchema, req.body));
    answer(res, postedAnswer, posted, 201);
  });
  router.post('/journals/:number/reversal', async (req, res) => {
    const body = checked(reverseSchema, req.body);
    const posted = await reverseJournal(context, actorOf(req), { journal: param(req, 'number'), ...body });
    answer(res, postedAnswer, posted, 201);
  });
  return router;
}
