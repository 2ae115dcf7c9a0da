import { Router, type Request } from 'express';
import { FINANCE, type Actor, type Context } from '../../platform/context.ts';
import { actorOf, checked, needs, param } from '../../platform/http/guards.ts';
import {
  clearSchema,
  correctionSchema,
  holdSchema,
  listSchema,
  markSchema,
  querySchema,
  returnSchema,
} from './claims.schema.ts';
import { askAbout, clearClaim, correctLine, holdClaim, markTie, reopenClaim, returnClaim } from './review.service.ts';
import { viewClaim, viewOwnClaims, viewQueue } from './view.service.ts';

/** Claims: the queue and the acts of review for finance, their own claims for everybody. */
export function claimRoutes(context: Context): Router {
  const router = Router();
  const reviewer = needs('reviewer');

  router.get('/claims', needs(...FINANCE), async (req, res) => {
    res.json(await viewQueue(context, checked(listSchema, req.query)));
  });
  router.get('/claims/own', async (req, res) => {
    res.json(await viewOwnClaims(context, actorOf(req)));
  });
  router.get('/claims/:number', async (req, res) => {
    res.json(await viewClaim(context, actorOf(req), param(req, 'number')));
  });

  /** An act answers with the claim as it is afterwards, so that the screen never shows a mixture. */
  const act = (
    path: string,
    method: 'post' | 'put',
    run: (actor: Actor, number: string, req: Request) => Promise<unknown>,
  ) =>
    router[method](path, reviewer, async (req, res) => {
      await run(actorOf(req), param(req, 'number'), req);
      res.json(await viewClaim(context, actorOf(req), param(req, 'number')));
    });

  act('/claims/:number/lines/:line', 'put', (actor, number, req) =>
    correctLine(context, actor, number, param(req, 'line'), checked(correctionSchema, req.body)),
  );
  act('/claims/:number/marks', 'post', (actor, number, req) =>
    markTie(context, actor, number, checked(markSchema, req.body)),
  );
  act('/claims/:number/queries', 'post', (actor, number, req) =>
    askAbout(context, actor, number, checked(querySchema, req.body)),
  );
  act('/claims/:number/clear', 'post', (actor, number, req) =>
    clearClaim(context, actor, number, checked(clearSchema, req.body).revision),
  );
  act('/claims/:number/reopen', 'post', (actor, number, req) =>
    reopenClaim(context, actor, number, checked(clearSchema, req.body).revision),
  );
  act('/claims/:number/return', 'post', (actor, number, req) =>
    returnClaim(context, actor, number, checked(returnSchema, req.body)),
  );
  act('/claims/:number/hold', 'put', (actor, number, req) =>
    holdClaim(context, actor, number, checked(holdSchema, req.body)),
  );
  return router;
}
