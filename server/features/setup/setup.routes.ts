import { Router, type Request } from 'express';
import {
  addRowSchema,
  endRowSchema,
  fileAnswer,
  fileSchema,
  kindsAnswer,
  rowHistoryAnswer,
  rowsAnswer,
  SETUP_KINDS,
  type SetupKind,
} from '../../../contract/setup.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, param } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { takeFile, writeFile } from './files.service.ts';
import { addRow, endRow, viewKinds, viewRowHistory, viewRows } from './setup.service.ts';

/** The dated master data: kept by administrators, looked at by auditors; everything by one description of each kind. */
export function setupRoutes(context: Context): Router {
  const router = Router();

  router.get('/setup', (_req, res) => {
    answer(res, kindsAnswer, viewKinds());
  });
  router.get('/setup/:kind', async (req, res) => {
    answer(res, rowsAnswer, await viewRows(context, actorOf(req), kindOf(req)));
  });
  router.get('/setup/:kind/rows.csv', async (req, res) => {
    const kind = kindOf(req);
    res
      .type('text/csv')
      .attachment(`${kind}.csv`)
      .send(await writeFile(context, actorOf(req), kind));
  });
  router.get('/setup/:kind/history/:key', async (req, res) => {
    answer(
      res,
      rowHistoryAnswer,
      await viewRowHistory(context, actorOf(req), kindOf(req), param(req, 'key').split('|')),
    );
  });
  router.post('/setup/:kind', async (req, res) => {
    const kind = kindOf(req);
    await addRow(context, actorOf(req), kind, checked(addRowSchema, req.body));
    answer(res, rowsAnswer, await viewRows(context, actorOf(req), kind), 201);
  });
  router.post('/setup/:kind/end', async (req, res) => {
    const kind = kindOf(req);
    await endRow(context, actorOf(req), kind, checked(endRowSchema, req.body));
    answer(res, rowsAnswer, await viewRows(context, actorOf(req), kind));
  });
  router.post('/setup/:kind/file', async (req, res) => {
    answer(res, fileAnswer, await takeFile(context, actorOf(req), kindOf(req), checked(fileSchema, req.body)));
  });
  return router;
}

function kindOf(req: Request): SetupKind {
  const kind = SETUP_KINDS.find((k) => k === param(req, 'kind'));
  if (!kind) throw new Refused('not-found', { what: 'kind of master data' });
  return kind;
}
