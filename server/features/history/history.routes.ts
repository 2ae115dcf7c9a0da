import { Router } from 'express';
import type { Context } from '../../platform/context.ts';
import { needs } from '../../platform/http/guards.ts';
import { toChained } from '../../platform/history/appendEvent.ts';
import { selectChain } from '../../platform/history/history.queries.ts';

/** The whole history as JSON lines of ebbet-event/1, for an auditor to keep and to verify with the command line. */
export function historyRoutes({ db }: Context): Router {
  const router = Router();
  router.get('/history.jsonl', needs('auditor'), async (_req, res) => {
    res.type('application/jsonl').attachment('history.jsonl');
    for await (const event of selectChain(db)) {
      const line = JSON.stringify({ format: 'ebbet-event/1', ...toChained(event), hash: event.hash });
      if (!res.write(`${line}\n`)) await new Promise((resolve) => res.once('drain', resolve));
    }
    res.end();
  });
  return router;
}
