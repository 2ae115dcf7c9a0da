import { Router, type Response } from 'express';
import type { Context } from '../../platform/context.ts';
import { toChained } from '../../platform/history/appendEvent.ts';
import { selectChain } from '../../platform/history/history.queries.ts';
import { needs } from '../../platform/http/guards.ts';
import { selectJournalExport } from './export.queries.ts';

/** What an auditor keeps and verifies with the command line: the whole history and every journal, as JSON lines. */
export function historyRoutes({ db }: Context): Router {
  const router = Router();
  router.get('/history.jsonl', needs('auditor'), async (_req, res) => {
    await sendLines(res, 'history.jsonl', selectChain(db), (event) => ({
      format: 'ebbet-event/2',
      ...toChained(event),
      hash: event.hash,
    }));
  });
  router.get('/journals.jsonl', needs('auditor'), async (_req, res) => {
    await sendLines(res, 'journals.jsonl', selectJournalExport(db), (journal) => journal);
  });
  return router;
}

/** Sends things one by one, as fast as they are taken, so that a long list needs little memory. */
async function sendLines<T>(res: Response, name: string, things: AsyncIterable<T>, write: (thing: T) => unknown) {
  res.type('application/jsonl').attachment(name);
  for await (const thing of things)
    if (!res.write(`${JSON.stringify(write(thing))}\n`)) await new Promise((resolve) => res.once('drain', resolve));
  res.end();
}
