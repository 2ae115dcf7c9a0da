import { Router } from 'express';
import { entitiesOf, type Services } from '../../platform/context.ts';
import { actorOf, checked, numberParam } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { fileOf, upload } from '../../platform/http/upload.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { answer } from '../../platform/http/answer.ts';
import { importFile } from './file.service.ts';
import { fileAnswer, importSchema, READERS, statementsAnswer, takenBackAnswer } from '../../../contract/statements.ts';
import { nothing } from '../../../contract/primitives.ts';
import { actsOpenOn, takeImportBack } from './takeBack.service.ts';
import { selectFeedCheck, selectStatements } from './statements.queries.ts';

/** Statements of cards: files by hand, and the bank's feed. */
export function statementRoutes(services: Services): Router {
  const router = Router();

  router.get('/statements', async (req, res) => {
    const actor = actorOf(req);
    const statements = await selectStatements(services.db, entitiesOf(actor, READERS), actor.id);
    const feed = await selectFeedCheck(services.db);
    const now = { connected: services.bank !== null, at: feed?.at ?? null, says: feed?.says ?? null };
    const shown = statements.map((s) => ({ ...s, may: actsOpenOn(s, actor) }));
    answer(res, statementsAnswer, { statements: shown, feed: now } as never);
  });
  router.post('/statements/:id/taken-back', async (req, res) => {
    const removed = await takeImportBack(services, actorOf(req), numberParam(req, 'id', 'statement'));
    answer(res, takenBackAnswer, { removed });
  });
  router.post('/statements', upload(2), async (req, res) => {
    const options = checked(importSchema, parsed((req.body as { options?: string }).options));
    const file = { ...fileOf(req), ...options };
    answer(res, fileAnswer, (await importFile(services, actorOf(req), file)) as never);
  });
  router.post('/feed', async (_req, res) => {
    if (!services.bank) throw new Refused('no-bank');
    await inTransaction(services, (trx) => services.jobs.ask(trx, 'fetch-feed', {}));
    answer(res, nothing, {}, 202);
  });
  return router;
}

function parsed(text: string | undefined): unknown {
  try {
    return JSON.parse(text ?? '{}');
  } catch {
    throw new Refused('not-json');
  }
}
