import { Router } from 'express';
import multer from 'multer';
import type { Role } from '../../../core/workflow/lifecycle.types.ts';
import { statementLifecycle } from '../../../core/workflow/lifecycles/gathering.ts';
import { entitiesOf, type Services } from '../../platform/context.ts';
import { actorOf, checked, mayTry, needs } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { answer } from '../../platform/http/answer.ts';
import { importFile } from './file.service.ts';
import { fileAnswer, importSchema, statementsAnswer } from '../../../contract/statements.ts';
import { nothing } from '../../../contract/primitives.ts';
import { selectFeedCheck, selectStatements } from './statements.queries.ts';

const LOOKERS: readonly Role[] = ['reviewer', 'controller', 'administrator', 'auditor'];
const MAX_BYTES = 15 * 1024 * 1024;

/** Statements of cards: files by hand, and the bank's feed. */
export function statementRoutes(services: Services): Router {
  const router = Router();
  const keeper = mayTry(statementLifecycle, 'import');
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: MAX_BYTES, files: 1, fields: 2, fieldSize: 10_000 },
    defParamCharset: 'utf8',
  });

  router.get('/statements', needs(...LOOKERS), async (req, res) => {
    const actor = actorOf(req);
    const statements = await selectStatements(services.db, entitiesOf(actor, LOOKERS), actor.id);
    const feed = await selectFeedCheck(services.db);
    const now = { connected: services.bank !== null, at: feed?.at ?? null, says: feed?.says ?? null };
    answer(res, statementsAnswer, { statements, feed: now } as never);
  });
  router.post('/statements', keeper, upload.single('file'), async (req, res) => {
    if (!req.file) throw new Refused('no-file');
    const options = checked(importSchema, parsed((req.body as { options?: string }).options));
    const file = { name: req.file.originalname, bytes: req.file.buffer, ...options };
    answer(res, fileAnswer, (await importFile(services, actorOf(req), file)) as never);
  });
  router.post('/feed', keeper, async (_req, res) => {
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
