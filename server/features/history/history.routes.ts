import { Router, type Response } from 'express';
import { EVERY_ENTITY } from '../../../core/workflow/lifecycle.types.ts';
import { entitiesOf, type Actor, type Context } from '../../platform/context.ts';
import { toChained } from '../../platform/history/appendEvent.ts';
import { selectChain, selectWords } from '../../platform/history/history.queries.ts';
import { actorOf } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectJournalExport } from './export.queries.ts';

/** What an auditor keeps and verifies with the command line: the whole history, and the journals of their entities, as JSON lines. */
export function historyRoutes({ db }: Context): Router {
  const router = Router();
  router.get('/history.jsonl', async (req, res) => {
    assertAuditsAll(actorOf(req));
    await sendLines(res, 'history.jsonl', selectChain(db), (event) => ({
      format: 'ebbet-event/2',
      ...toChained(event),
      hash: event.hash,
      ...(event.mark ? { mark: event.mark } : {}),
    }));
  });
  router.get('/words.jsonl', async (req, res) => {
    assertAuditsAll(actorOf(req));
    await sendLines(res, 'words.jsonl', selectWords(db), (words) => ({ format: 'ebbet-words/1', ...words }));
  });
  router.get('/journals.jsonl', async (req, res) => {
    const journals = selectJournalExport(db, entitiesOf(actorOf(req), ['auditor']));
    await sendLines(res, 'journals.jsonl', journals, (journal) => journal);
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

/** A chain is verified whole, and records of all entities are in it. */
function assertAuditsAll(actor: Actor): void {
  if (!actor.holds('auditor', EVERY_ENTITY)) throw new Refused('not-allowed', { needs: 'auditor of every entity' });
}
