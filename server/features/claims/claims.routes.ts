import { Router, type Request, type RequestHandler } from 'express';
import { budgetsAnswer, personAnswer, splitsAnswer, versionAnswer } from '../../../contract/beside.ts';
import {
  bookAnswer,
  claimAnswer,
  holdSchema,
  journalPreview,
  ownClaimsAnswer,
  ownFilter,
  previewSchema,
  querySchema,
} from '../../../contract/claims.ts';
import { correctionSchema, correctionsSchema } from '../../../contract/corrections.ts';
import { markSchema } from '../../../contract/marks.ts';
import {
  actSchema,
  approveSchema,
  declineLineSchema,
  oneLineSchema,
  reasonedSchema,
  returnSchema,
} from '../../../contract/decisions.ts';
import { type ClaimAct } from '../../../core/workflow/lifecycles/claim.ts';
import type { SeenClaim } from '../../records/claims/claimStore.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, numberParam, param } from '../../platform/http/guards.ts';
import {
  answerSchema,
  beginningsAnswer,
  beginningsQuery,
  begunAnswer,
  beginSchema,
  dealRecurringSchema,
  divideLineSchema,
  explainSchema,
  headerSchema,
  lineSchema,
  linesSchema,
  newLinesSchema,
  orderSchema,
  putReceiptSchema,
  recurringAnswer,
  repeatSchema,
  submitSchema,
} from '../../../contract/drafts.ts';
import { seenQuery } from '../../../contract/primitives.ts';
import { pathOfAct } from '../../../contract/route.ts';
import { fileOf, upload } from '../../platform/http/upload.ts';
import { attachToClaim, detachFromClaim } from './attachments.service.ts';
import { coverSheetOf } from './cover/papers.ts';
import { viewBudgets, viewPerson, viewVersion } from './beside.service.ts';
import { viewSplits } from './splits.service.ts';
import { beginDraft, viewBeginnings } from './begin.service.ts';
import { correctLines } from './correct.service.ts';
import { divideLine } from './divideLine.service.ts';
import { answerQuery, editHeader, explainFinding, orderLines } from './drafts.service.ts';
import { editLines, removeLine, writeLines } from './lines.service.ts';
import { writeLinesCsv } from './linesCsv.ts';
import { viewOwnClaims, writeOwnCsv } from './lists.service.ts';
import { answerInReview, askAbout, attachToAnswer, dropQuery, sendQuestions } from './queries.service.ts';
import { putReceipt } from './receiptOnLine.service.ts';
import { dealWithRecurring, endRecurring, repeatLine, viewRecurring } from './recurring.service.ts';
import { clearClaim, holdClaim, markTie, releaseClaim, reopenClaim } from './review.service.ts';
import {
  agreeCode,
  approveClaim,
  declineClaim,
  declineLine,
  refuseCode,
  restoreLine,
  returnClaim,
  returnToApprover,
  takeBackClaim,
} from './decisions.service.ts';
import { bringBackClaim, callBackClaim, resubmitClaim, submitClaim, withdrawClaim } from './submission.service.ts';
import { previewJournal, viewBook, viewClaim } from './view.service.ts';

type Run = (actor: Actor, number: string, req: Request) => Promise<unknown>;

/** Claims: the queue for finance, their own for everybody, and the acts of all who deal with one. */
export function claimRoutes(services: Services, uploads: RequestHandler): Router {
  const router = Router();
  const context: Context = services;

  router.get('/claims/own', async (req, res) => {
    answer(res, ownClaimsAnswer, (await viewOwnClaims(context, actorOf(req))) as never);
  });
  router.get('/claims/own.csv', async (req, res) => {
    const file = await writeOwnCsv(context, actorOf(req), checked(ownFilter, req.query));
    res.type('text/csv').attachment('claims.csv').send(file);
  });
  router.get('/claims/:number', async (req, res) => {
    answer(res, claimAnswer, await viewClaim(context, actorOf(req), param(req, 'number')));
  });
  router.get('/claims/:number/versions/:version', async (req, res) => {
    const version = Number(numberParam(req, 'version', 'version'));
    answer(res, versionAnswer, await viewVersion(context, actorOf(req), param(req, 'number'), version));
  });
  router.get('/claims/:number/person', async (req, res) => {
    answer(res, personAnswer, await viewPerson(context, actorOf(req), param(req, 'number')));
  });
  router.get('/claims/:number/budgets', async (req, res) => {
    answer(res, budgetsAnswer, await viewBudgets(context, actorOf(req), param(req, 'number')));
  });
  router.get('/claims/:number/splits', async (req, res) => {
    answer(res, splitsAnswer, await viewSplits(context, actorOf(req), param(req, 'number')));
  });
  router.get('/claims/:number/lines.csv', async (req, res) => {
    const number = param(req, 'number');
    const view = await viewClaim(context, actorOf(req), number);
    res.type('text/csv').attachment(`${number}.csv`).send(writeLinesCsv(view));
  });
  router.get('/claims/:number/cover.pdf', async (req, res) => {
    const number = param(req, 'number');
    const pdf = await coverSheetOf(context, await viewClaim(context, actorOf(req), number));
    res.type('application/pdf').attachment(`${number}.pdf`).send(Buffer.from(pdf));
  });
  router.get('/claims/:number/journal', async (req, res) => {
    const { date } = checked(previewSchema, req.query);
    answer(res, journalPreview, await previewJournal(context, actorOf(req), param(req, 'number'), date));
  });
  router.get('/books/:hash', async (req, res) => {
    answer(res, bookAnswer, (await viewBook(context, param(req, 'hash'))) as never);
  });

  /** An act answers with the claim as it is afterwards, so that the screen never shows a mixture. */
  const act = (method: 'post' | 'put' | 'delete', path: string, name: ClaimAct, run: Run) =>
    router[method](path, async (req, res) => {
      const [actor, number] = [actorOf(req), param(req, 'number')];
      await run(actor, number, req);
      answer(res, claimAnswer, await viewClaim(context, actor, number));
    });
  const plain = (name: ClaimAct, run: (c: Context, actor: Actor, seen: SeenClaim) => Promise<void>) =>
    act('post', `/claims/:number/${pathOfAct(name)}`, name, (actor, number, req) =>
      run(context, actor, { number, ...checked(actSchema, req.body) }),
    );
  const reasoned = (name: ClaimAct, run: typeof declineClaim) =>
    act('post', `/claims/:number/${pathOfAct(name)}`, name, (actor, number, req) =>
      run(context, actor, { number, ...checked(reasonedSchema, req.body) }),
    );

  router.post('/drafts', async (req, res) => {
    answer(res, begunAnswer, await beginDraft(context, actorOf(req), checked(beginSchema, req.body)), 201);
  });
  router.get('/drafts/beginnings', async (req, res) => {
    const { claimant } = checked(beginningsQuery, req.query);
    answer(res, beginningsAnswer, await viewBeginnings(context, actorOf(req), claimant));
  });
  act('put', '/drafts/:number', 'edit', (actor, number, req) => {
    const { revision, set } = checked(headerSchema, req.body);
    return editHeader(context, actor, { number, revision }, set);
  });
  router.get('/drafts/:number/recurring', async (req, res) => {
    answer(res, recurringAnswer, await viewRecurring(context, actorOf(req), param(req, 'number')));
  });
  act('post', '/drafts/:number/lines/:line/repeat', 'edit', (actor, number, req) => {
    const { revision, ...repeat } = checked(repeatSchema, req.body);
    return repeatLine(context, actor, { number, revision }, param(req, 'line'), repeat);
  });
  act('put', '/drafts/:number/lines/:line/receipt', 'pair', (actor, number, req) => {
    const { revision, receipt } = checked(putReceiptSchema, req.body);
    return putReceipt(context, actor, { number, revision }, { line: param(req, 'line'), receipt });
  });
  act('post', '/drafts/:number/lines/:line/parts', 'write', (actor, number, req) => {
    const { revision, parts } = checked(divideLineSchema, req.body);
    return divideLine(context, actor, { number, revision }, param(req, 'line'), parts);
  });
  const recurringId = (req: Request) => numberParam(req, 'id', 'recurring line');
  act('post', '/drafts/:number/recurring/:id', 'write', (actor, number, req) => {
    const { revision, ...deal } = checked(dealRecurringSchema, req.body);
    return dealWithRecurring(context, actor, { number, revision }, recurringId(req), deal);
  });
  act('delete', '/drafts/:number/recurring/:id', 'edit', (actor, number, req) =>
    endRecurring(context, actor, { number, ...checked(seenQuery, req.query) }, recurringId(req)),
  );
  router.post('/drafts/:number/attachments', uploads, upload(0), async (req, res) => {
    const [actor, number] = [actorOf(req), param(req, 'number')];
    await attachToClaim(services, actor, { number, ...checked(seenQuery, req.query) }, fileOf(req));
    answer(res, claimAnswer, await viewClaim(context, actor, number), 201);
  });
  act('delete', '/drafts/:number/attachments/:id', 'edit', (actor, number, req) =>
    detachFromClaim(
      services,
      actor,
      { number, ...checked(seenQuery, req.query) },
      numberParam(req, 'id', 'attachment'),
    ),
  );
  act('put', '/drafts/:number/order', 'edit', (actor, number, req) => {
    const { revision, order } = checked(orderSchema, req.body);
    return orderLines(context, actor, { number, revision }, order);
  });
  act('put', '/drafts/:number/queries/:query', 'edit', (actor, number, req) => {
    const { revision, text } = checked(answerSchema, req.body);
    return answerQuery(context, actor, { number, revision }, numberParam(req, 'query', 'query'), text);
  });
  act('put', '/drafts/:number/explanations', 'edit', (actor, number, req) => {
    const { revision, ...said } = checked(explainSchema, req.body);
    return explainFinding(context, actor, { number, revision }, said);
  });
  act('post', '/drafts/:number/lines', 'write', (actor, number, req) => {
    const { revision, lines } = checked(newLinesSchema, req.body);
    return writeLines(context, actor, { number, revision }, lines);
  });
  act('put', '/drafts/:number/lines/:line', 'edit', (actor, number, req) => {
    const { revision, set } = checked(lineSchema, req.body);
    return editLines(context, actor, { number, revision }, { ids: [param(req, 'line')], set });
  });
  act('put', '/drafts/:number/lines', 'edit', (actor, number, req) => {
    const { revision, ...change } = checked(linesSchema, req.body);
    return editLines(context, actor, { number, revision }, change);
  });
  act('delete', '/drafts/:number/lines/:line', 'remove', (actor, number, req) =>
    removeLine(context, actor, { number, ...checked(seenQuery, req.query) }, param(req, 'line')),
  );
  for (const [name, run] of [
    ['submit', submitClaim],
    ['resubmit', resubmitClaim],
  ] as const)
    act('post', `/claims/:number/${pathOfAct(name)}`, name, (actor, number, req) =>
      run(context, actor, { number, ...checked(submitSchema, req.body) }),
    );
  plain('withdraw', withdrawClaim);
  plain('callBack', callBackClaim);
  plain('bringBack', bringBackClaim);
  act('post', '/claims/:number/approve', 'approve', (actor, number, req) =>
    approveClaim(context, actor, { number, ...checked(approveSchema, req.body) }),
  );
  plain('takeBack', takeBackClaim);
  plain('agreeCode', agreeCode);
  reasoned('refuseCode', refuseCode);
  act('post', '/claims/:number/decline-line', 'declineLine', (actor, number, req) =>
    declineLine(context, actor, { number, ...checked(declineLineSchema, req.body) }),
  );
  act('post', '/claims/:number/restore-line', 'restoreLine', (actor, number, req) =>
    restoreLine(context, actor, { number, ...checked(oneLineSchema, req.body) }),
  );
  reasoned('decline', declineClaim);
  reasoned('returnToApprover', returnToApprover);
  act('post', '/claims/:number/return', 'return', (actor, number, req) =>
    returnClaim(context, actor, { number, ...checked(returnSchema, req.body) }),
  );
  act('put', '/claims/:number/lines/:line', 'correct', (actor, number, req) => {
    const { revision, ...correction } = checked(correctionSchema, req.body);
    return correctLines(context, actor, { number, revision }, [{ line: param(req, 'line'), ...correction }]);
  });
  act('put', '/claims/:number/lines', 'correct', (actor, number, req) => {
    const { revision, corrections } = checked(correctionsSchema, req.body);
    return correctLines(context, actor, { number, revision }, corrections);
  });
  act('post', '/claims/:number/marks', 'mark', (actor, number, req) =>
    markTie(context, actor, number, checked(markSchema, req.body)),
  );
  act('post', '/claims/:number/queries', 'ask', (actor, number, req) => {
    const { revision, ...question } = checked(querySchema, req.body);
    return askAbout(context, actor, { number, revision }, question);
  });
  plain('sendQueries', sendQuestions);
  const queryId = (req: Request) => numberParam(req, 'query', 'query');
  act('delete', '/claims/:number/queries/:query', 'dropQuery', (actor, number, req) =>
    dropQuery(context, actor, { number, query: queryId(req), ...checked(seenQuery, req.query) }),
  );
  act('put', '/claims/:number/queries/:query', 'answer', (actor, number, req) => {
    const { revision, text } = checked(answerSchema, req.body);
    return answerInReview(context, actor, { number, query: queryId(req), revision }, text);
  });
  router.post('/claims/:number/queries/:query/files', uploads, upload(0), async (req, res) => {
    const [actor, number] = [actorOf(req), param(req, 'number')];
    const seen = { number, query: queryId(req), ...checked(seenQuery, req.query) };
    await attachToAnswer(services, actor, seen, fileOf(req));
    answer(res, claimAnswer, await viewClaim(context, actor, number), 201);
  });
  act('post', '/claims/:number/hold', 'hold', (actor, number, req) =>
    holdClaim(context, actor, number, checked(holdSchema, req.body)),
  );
  plain('release', releaseClaim);
  plain('clear', clearClaim);
  plain('reopen', reopenClaim);
  return router;
}
