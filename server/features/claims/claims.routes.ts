import { Router, type Request } from 'express';
import {
  actSchema,
  bookAnswer,
  claimAnswer,
  correctionSchema,
  holdSchema,
  journalPreview,
  listSchema,
  markSchema,
  ownClaimsAnswer,
  previewSchema,
  querySchema,
  queueAnswer,
  reasonedSchema,
} from '../../../contract/claims.ts';
import { FINANCE, type Actor, type Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, needs, param } from '../../platform/http/guards.ts';
import { lineSchema, seenQuery } from '../../../contract/gather.ts';
import { editLine, removeLine } from './lines.service.ts';
import { viewOwnClaims, viewQueue } from './lists.service.ts';
import { askAbout, clearClaim, correctLine, holdClaim, markTie, releaseClaim, reopenClaim } from './review.service.ts';
import {
  approveClaim,
  declineClaim,
  resubmitClaim,
  returnClaim,
  submitClaim,
  withdrawClaim,
} from './submission.service.ts';
import { previewJournal, viewBook, viewClaim } from './view.service.ts';

type Run = (actor: Actor, number: string, req: Request) => Promise<unknown>;

/** Claims: the queue for finance, their own for everybody, and the acts of all who deal with one. */
export function claimRoutes(context: Context): Router {
  const router = Router();

  router.get('/claims', needs(...FINANCE), async (req, res) => {
    answer(res, queueAnswer, (await viewQueue(context, actorOf(req), checked(listSchema, req.query))) as never);
  });
  router.get('/claims/own', async (req, res) => {
    answer(res, ownClaimsAnswer, (await viewOwnClaims(context, actorOf(req))) as never);
  });
  router.get('/claims/:number', async (req, res) => {
    answer(res, claimAnswer, await viewClaim(context, actorOf(req), param(req, 'number')));
  });
  router.get('/claims/:number/journal', needs(...FINANCE), async (req, res) => {
    const { date } = checked(previewSchema, req.query);
    answer(res, journalPreview, await previewJournal(context, actorOf(req), param(req, 'number'), date));
  });
  router.get('/books/:hash', needs(...FINANCE), async (req, res) => {
    answer(res, bookAnswer, (await viewBook(context, param(req, 'hash'))) as never);
  });

  /** An act answers with the claim as it is afterwards, so that the screen never shows a mixture. */
  const act = (method: 'post' | 'put' | 'delete', path: string, run: Run) =>
    router[method](path, async (req, res) => {
      const [actor, number] = [actorOf(req), param(req, 'number')];
      await run(actor, number, req);
      answer(res, claimAnswer, await viewClaim(context, actor, number));
    });
  const plain = (
    path: string,
    run: (c: Context, actor: Actor, seen: { number: string; revision: number }) => Promise<void>,
  ) => act('post', path, (actor, number, req) => run(context, actor, { number, ...checked(actSchema, req.body) }));
  const reasoned = (path: string, run: typeof declineClaim) =>
    act('post', path, (actor, number, req) => run(context, actor, { number, ...checked(reasonedSchema, req.body) }));

  plain('/claims/:number/submit', submitClaim);
  plain('/claims/:number/resubmit', resubmitClaim);
  plain('/claims/:number/withdraw', withdrawClaim);
  plain('/claims/:number/approve', approveClaim);
  reasoned('/claims/:number/decline', declineClaim);
  reasoned('/claims/:number/return', returnClaim);
  act('put', '/drafts/:number/lines/:line', (actor, number, req) => {
    const { revision, set } = checked(lineSchema, req.body);
    return editLine(context, actor, { number, revision }, param(req, 'line'), set);
  });
  act('delete', '/drafts/:number/lines/:line', (actor, number, req) =>
    removeLine(context, actor, { number, ...checked(seenQuery, req.query) }, param(req, 'line')),
  );
  act('put', '/claims/:number/lines/:line', (actor, number, req) =>
    correctLine(context, actor, number, param(req, 'line'), checked(correctionSchema, req.body)),
  );
  act('post', '/claims/:number/marks', (actor, number, req) =>
    markTie(context, actor, number, checked(markSchema, req.body)),
  );
  act('post', '/claims/:number/queries', (actor, number, req) =>
    askAbout(context, actor, number, checked(querySchema, req.body)),
  );
  act('post', '/claims/:number/hold', (actor, number, req) =>
    holdClaim(context, actor, number, checked(holdSchema, req.body)),
  );
  plain('/claims/:number/release', releaseClaim);
  plain('/claims/:number/clear', clearClaim);
  plain('/claims/:number/reopen', reopenClaim);
  return router;
}
