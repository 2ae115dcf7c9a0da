import type { z } from 'zod';
import { FINANCE } from '../core/workflow/lifecycle.types.ts';
import { claimLifecycle, type ClaimAct } from '../core/workflow/lifecycles/claim.ts';
import { cardMonthLifecycle, statementLifecycle } from '../core/workflow/lifecycles/gathering.ts';
import { periodLifecycle } from '../core/workflow/lifecycles/keeping.ts';
import * as approvals from './approvals.ts';
import { chartAnswer, payeesAnswer } from './chart.ts';
import * as claims from './claims.ts';
import * as decisions from './decisions.ts';
import { favouriteSchema, ownCodesAnswer, saveCodingSchema } from './codes.ts';
import { BESIDE_ROUTES } from './beside.ts';
import { CLEARING_ROUTES } from './clearing.ts';
import { DESK_ROUTES } from './desk.ts';
import * as drafts from './drafts.ts';
import { DRAFT_ROUTES } from './draftRoutes.ts';
import * as gather from './gather.ts';
import * as journals from './journals.ts';
import * as periods from './periods.ts';
import { ADVANCE_ROUTES } from './advanceRoutes.ts';
import { MESSAGE_ROUTES } from './messages.ts';
import { PLAN_ROUTES } from './planRoutes.ts';
import { SETUP_ROUTES } from './setupRoutes.ts';
import { REVIEW_ROUTES } from './reviewRoutes.ts';
import { nothing, seenQuery } from './primitives.ts';
import { GATHERERS, pathOfAct, route, whoMay, type RouteContract } from './route.ts';
import * as session from './session.ts';
import * as setup from './setup.ts';
import * as statements from './statements.ts';

/** An act on a claim, named as in the lifecycle; it answers with the claim as it is afterwards. */
const act = (name: ClaimAct, body: z.ZodType): RouteContract =>
  route(
    'post',
    `/claims/:number/${pathOfAct(name)}`,
    whoMay(claimLifecycle, name),
    `Claim: ${claimLifecycle.acts[name].event}.`,
    claims.claimAnswer,
    { body },
  );

/** Every address under /api. */
export const ROUTES: readonly RouteContract[] = [
  route('get', '/session', 'anybody', 'Who is signed in.', session.sessionAnswer),
  route('post', '/session', 'anybody', 'Signs in.', session.signedInAnswer, {
    body: session.signInSchema,
    status: 201,
  }),
  route('delete', '/session', 'signed in', 'Signs out.', nothing),
  route('get', '/sessions', 'in person', 'Where one is signed in.', session.sessionsAnswer),
  route('delete', '/sessions/:id', 'in person', 'Ends one of one’s own sessions.', session.sessionsAnswer),
  route('put', '/session/password', 'in person', 'Changes one’s own password.', nothing, {
    body: session.changePasswordSchema,
  }),
  route(
    'post',
    '/session/forgotten',
    'anybody',
    'Sends a letter for a new password, if the e-mail is known.',
    nothing,
    {
      body: session.forgottenSchema,
    },
  ),
  route('put', '/session/forgotten', 'anybody', 'Sets a new password by a letter.', nothing, {
    body: session.newPasswordSchema,
  }),
  route('get', '/session/factor', 'in person', 'One’s own second factor.', session.factorAnswer),
  route('post', '/session/factor', 'in person', 'Offers a secret for an authenticator.', session.factorOfferAnswer),
  route('put', '/session/factor', 'in person', 'Adds the second factor that was offered.', session.addedFactorAnswer, {
    body: session.addFactorSchema,
  }),
  route('post', '/session/factor/end', 'in person', 'Removes the second factor.', session.factorAnswer, {
    body: session.removeFactorSchema,
  }),
  route('get', '/demo/people', 'anybody', 'The people of the demo; only there.', session.demoPeopleAnswer),
  route('get', '/tokens', 'signed in', 'One’s own tokens.', session.tokensAnswer),
  route('post', '/tokens', 'in person', 'Makes a token; it is told this once.', session.madeTokenAnswer, {
    body: session.tokenSchema,
    status: 201,
  }),
  route('delete', '/tokens/:id', 'in person', 'Revokes a token.', session.tokensAnswer),
  route('get', '/openapi.json', 'anybody', 'This description.', null, { type: 'application/json' }),
  route('get', '/chart', 'signed in', 'Names and codes to choose from.', chartAnswer),
  route('get', '/payees', ['preparer'], 'For whom one may prepare plans and claims.', payeesAnswer),

  route('get', '/attachments/:id/pages/:page', 'signed in', 'A page of an attachment.', null, { type: 'image/webp' }),
  route('get', '/own/codes', 'signed in', 'Codes as one uses them oneself.', ownCodesAnswer),
  route('put', '/own/codes/favourites', 'signed in', 'Keeps a code first, or no longer.', ownCodesAnswer, {
    body: favouriteSchema,
  }),
  route('post', '/own/codes/codings', 'signed in', 'Saves a coding under a name.', ownCodesAnswer, {
    body: saveCodingSchema,
  }),
  route('delete', '/own/codes/codings/:id', 'signed in', 'Forgets a saved coding.', ownCodesAnswer),

  route('get', '/approvals', 'signed in', 'What waits for one’s decision.', approvals.approvalsAnswer),
  route('get', '/approval-routes/:kind/:number', 'signed in', 'Who decides about a record.', approvals.routeAnswer),
  route('post', '/approval-routes/tries', setup.KEEPERS, 'The route of a made-up record.', approvals.routeAnswer, {
    body: approvals.tryRouteSchema,
  }),

  ...DESK_ROUTES,
  ...CLEARING_ROUTES,
  route('get', '/claims/own', 'signed in', 'One’s own claims.', claims.ownClaimsAnswer),
  route('get', '/claims/own.csv', 'signed in', 'One’s own claims as a file.', null, {
    query: claims.ownFilter,
    type: 'text/csv',
  }),
  route('get', '/claims/:number', 'signed in', 'A claim, as its audience sees it.', claims.claimAnswer),
  route('get', '/claims/:number/cover.pdf', 'signed in', 'The cover of a claim with its papers.', null, {
    type: 'application/pdf',
  }),
  route('get', '/claims/:number/lines.csv', 'signed in', 'The lines of a claim as a file.', null, { type: 'text/csv' }),
  route('get', '/claims/:number/journal', FINANCE, 'The journal a claim would have on a date.', claims.journalPreview, {
    query: claims.previewSchema,
  }),
  route('get', '/books/:hash', FINANCE, 'The shared part of a book, by its hash.', claims.bookAnswer),
  act('submit', drafts.submitSchema),
  act('resubmit', drafts.submitSchema),
  act('withdraw', decisions.actSchema),
  act('callBack', decisions.actSchema),
  act('bringBack', decisions.actSchema),
  act('approve', decisions.approveSchema),
  act('takeBack', decisions.actSchema),
  act('declineLine', decisions.declineLineSchema),
  act('restoreLine', decisions.oneLineSchema),
  act('agreeCode', decisions.actSchema),
  act('refuseCode', decisions.reasonedSchema),
  act('decline', decisions.reasonedSchema),
  act('return', decisions.returnSchema),
  act('hold', claims.holdSchema),
  act('release', decisions.actSchema),
  act('clear', decisions.actSchema),
  act('reopen', decisions.actSchema),
  ...REVIEW_ROUTES,
  ...BESIDE_ROUTES,
  route('post', '/claims/:number/post', whoMay(claimLifecycle, 'post'), 'Posts a cleared claim.', claims.postedAnswer, {
    body: claims.postSchema,
    needsKey: true,
    status: 201,
  }),

  ...PLAN_ROUTES,
  ...ADVANCE_ROUTES,
  ...MESSAGE_ROUTES,
  ...DRAFT_ROUTES,
  route('get', '/pairs', GATHERERS, 'Lines, charges and receipts, and what looks like a pair.', gather.pairsAnswer),
  route('post', '/pairs', GATHERERS, 'Accepts pairs.', gather.pairsAnswer, { body: gather.pairSchema }),
  route('post', '/pairs/undo', GATHERERS, 'Undoes pairs.', gather.pairsAnswer, { body: gather.unpairSchema }),

  route('get', '/receipts', GATHERERS, 'One’s own receipts.', gather.receiptsAnswer, { query: gather.receiptsQuery }),
  route('post', '/receipts/combine', GATHERERS, 'Makes one receipt of several.', gather.madeAnswer, {
    body: gather.combineSchema,
    status: 201,
  }),
  route('post', '/receipts/:id/divide', GATHERERS, 'Makes receipts of the pages of one.', gather.madeAnswer, {
    body: gather.divideSchema,
    status: 201,
  }),
  route('put', '/receipts/:id/pages/:page/turn', GATHERERS, 'Turns a page.', gather.receiptsAnswer, {
    body: gather.turnSchema,
  }),
  route('post', '/receipts', GATHERERS, 'Adds a file.', gather.addedAnswer, { body: 'file', status: 201 }),
  route('put', '/receipts/:id', GATHERERS, 'Confirms what a receipt shows.', gather.receiptsAnswer, {
    body: gather.confirmSchema,
  }),
  route('delete', '/receipts/:id', GATHERERS, 'Takes a receipt away.', gather.receiptsAnswer, {
    query: seenQuery,
  }),
  route('post', '/receipts/:id/read', GATHERERS, 'Reads a receipt once more.', gather.receiptsAnswer, {
    body: gather.seenSchema,
  }),
  route('post', '/receipts/:id/back', GATHERERS, 'Brings a receipt back.', gather.receiptsAnswer),
  route('get', '/receipts/:id/pages/:page', 'signed in', 'A page as a picture.', null, { type: 'image/jpeg' }),
  route('get', '/receipts/:id/original', ['auditor'], 'The file as it came; for auditors.', null, {
    type: 'application/octet-stream',
  }),

  route('get', '/charges', 'signed in', 'The charges of one’s own cards.', gather.chargesAnswer),
  route('put', '/charges/:id/mark', 'signed in', 'Says that a charge was claimed before.', gather.chargesAnswer, {
    body: gather.chargeMarkSchema,
  }),
  route('get', '/cards', 'signed in', 'Cards with their months.', gather.cardsAnswer),
  route('get', '/cards/:card/months/:month', 'signed in', 'A month with its proof.', gather.monthAnswer),
  route(
    'put',
    '/cards/:card/months/:month/closed',
    whoMay(cardMonthLifecycle, 'close'),
    'Closes a month.',
    gather.monthAnswer,
    {
      body: gather.seenSchema,
    },
  ),
  route(
    'delete',
    '/cards/:card/months/:month/closed',
    whoMay(cardMonthLifecycle, 'reopen'),
    'Opens a month again.',
    gather.monthAnswer,
    {
      query: seenQuery,
    },
  ),
  route('get', '/statements', statements.READERS, 'Statements and the feed.', statements.statementsAnswer),
  route('post', '/statements', whoMay(statementLifecycle, 'import'), 'Imports a file.', statements.fileAnswer, {
    body: 'file',
  }),
  route(
    'post',
    '/statements/:id/taken-back',
    whoMay(statementLifecycle, 'takeBack'),
    'Takes an import back.',
    statements.takenBackAnswer,
  ),
  route('post', '/feed', whoMay(statementLifecycle, 'import'), 'Asks the bank now.', nothing, { status: 202 }),

  route('get', '/journals', FINANCE, 'A page of the ledger.', journals.journalsAnswer, {
    query: journals.journalPageSchema,
  }),
  route('get', '/journals/ready', FINANCE, 'Claims that wait to be posted.', journals.readyAnswer),
  route('get', '/journals/export.csv', FINANCE, 'Journal rows.', null, {
    query: journals.exportSchema,
    type: 'text/csv',
  }),
  route('get', '/journals/:number', FINANCE, 'A journal.', journals.journalAnswer),
  route(
    'post',
    '/journals/:number/reversal',
    whoMay(claimLifecycle, 'reverse'),
    'Reverses a journal.',
    claims.postedAnswer,
    {
      body: journals.reverseSchema,
      needsKey: true,
      status: 201,
    },
  ),
  route('get', '/periods', FINANCE, 'The periods.', periods.periodsAnswer),
  route(
    'post',
    '/periods/:entity/:id/close',
    whoMay(periodLifecycle, 'close'),
    'Closes a period.',
    periods.periodsAnswer,
    {
      body: periods.closePeriodSchema,
    },
  ),
  route(
    'post',
    '/periods/:entity/:id/reopen',
    whoMay(periodLifecycle, 'reopen'),
    'Opens a period again.',
    periods.periodsAnswer,
    {
      body: periods.reopenPeriodSchema,
    },
  ),
  route('get', '/history.jsonl', ['auditor'], 'Every event, for auditors.', null, { type: 'application/jsonl' }),
  route('get', '/words.jsonl', ['auditor'], 'The words that came with events, for auditors.', null, {
    type: 'application/jsonl',
  }),
  route('get', '/journals.jsonl', ['auditor'], 'Every journal, for auditors.', null, { type: 'application/jsonl' }),

  ...SETUP_ROUTES,
];
