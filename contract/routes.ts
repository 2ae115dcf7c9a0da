import type { z } from 'zod';
import { claimLifecycle, type ClaimAct } from '../core/workflow/lifecycles/claim.ts';
import { chartAnswer } from './chart.ts';
import * as claims from './claims.ts';
import * as gather from './gather.ts';
import * as journals from './journals.ts';
import * as periods from './periods.ts';
import { nothing } from './primitives.ts';
import * as session from './session.ts';
import * as setup from './setup.ts';
import * as statements from './statements.ts';

/** One address of the server: what it takes and what it answers. `answer: null` is a file or a stream, named by its type. */
export interface RouteContract {
  method: 'get' | 'post' | 'put' | 'delete';
  path: string;
  says: string;
  query?: z.ZodType;
  body?: z.ZodType | 'file';
  answer: z.ZodType | null;
  type?: string;
  status?: number;
}

type Rest = Omit<RouteContract, 'method' | 'path' | 'says' | 'answer'>;
const route = (
  method: RouteContract['method'],
  path: string,
  says: string,
  answer: z.ZodType | null,
  rest: Rest = {},
): RouteContract => ({ method, path, says, answer, ...rest });
/** An act on a claim, named as in the lifecycle; it answers with the claim as it is afterwards. */
const act = (name: ClaimAct, body: z.ZodType): RouteContract =>
  route('post', `/claims/:number/${name}`, `Claim: ${claimLifecycle.acts[name].event}.`, claims.claimAnswer, { body });

/** Every address under /api. */
export const ROUTES: readonly RouteContract[] = [
  route('get', '/session', 'Who is signed in.', session.sessionAnswer),
  route('post', '/session', 'Signs in.', session.signedInAnswer, { body: session.signInSchema, status: 201 }),
  route('delete', '/session', 'Signs out.', nothing),
  route('get', '/demo/people', 'The people of the demo; only there.', session.demoPeopleAnswer),
  route('get', '/tokens', 'One’s own tokens.', session.tokensAnswer),
  route('post', '/tokens', 'Makes a token; it is told this once.', session.madeTokenAnswer, {
    body: session.tokenSchema,
    status: 201,
  }),
  route('delete', '/tokens/:id', 'Revokes a token.', session.tokensAnswer),
  route('get', '/openapi.json', 'This description.', null, { type: 'application/json' }),
  route('get', '/chart', 'Names and codes to choose from.', chartAnswer),

  route('get', '/claims', 'A page of the queue.', claims.queueAnswer, { query: claims.listSchema }),
  route('get', '/claims/own', 'One’s own claims, and those to decide about.', claims.ownClaimsAnswer),
  route('get', '/claims/:number', 'A claim, as its audience sees it.', claims.claimAnswer),
  route('get', '/claims/:number/journal', 'The journal a claim would have on a date.', claims.journalPreview, {
    query: claims.previewSchema,
  }),
  route('get', '/books/:hash', 'The shared part of a book, by its hash.', claims.bookAnswer),
  act('submit', claims.actSchema),
  act('resubmit', claims.actSchema),
  act('withdraw', claims.actSchema),
  act('approve', claims.actSchema),
  act('decline', claims.reasonedSchema),
  act('return', claims.reasonedSchema),
  act('hold', claims.holdSchema),
  act('release', claims.actSchema),
  act('clear', claims.actSchema),
  act('reopen', claims.actSchema),
  route('put', '/claims/:number/lines/:line', 'Corrects a line in review.', claims.claimAnswer, {
    body: claims.correctionSchema,
  }),
  route('post', '/claims/:number/marks', 'Marks a comparison.', claims.claimAnswer, { body: claims.markSchema }),
  route('post', '/claims/:number/queries', 'Pins a query to a line.', claims.claimAnswer, { body: claims.querySchema }),
  route('post', '/claims/:number/post', 'Posts a cleared claim.', claims.postedAnswer, {
    body: claims.postSchema,
    status: 201,
  }),

  route('post', '/drafts/lines', 'Makes lines of receipts and charges.', gather.takenAnswer, {
    body: gather.takeSchema,
    status: 201,
  }),
  route('put', '/drafts/:number/lines/:line', 'Changes a line in preparation.', claims.claimAnswer, {
    body: gather.lineSchema,
  }),
  route('delete', '/drafts/:number/lines/:line', 'Takes a line off a claim in preparation.', claims.claimAnswer, {
    query: gather.seenQuery,
  }),
  route('get', '/pairs', 'Lines, charges and receipts, and what looks like a pair.', gather.pairsAnswer),
  route('post', '/pairs', 'Accepts pairs.', gather.pairsAnswer, { body: gather.pairSchema }),
  route('post', '/pairs/undo', 'Undoes pairs.', gather.pairsAnswer, { body: gather.unpairSchema }),

  route('get', '/receipts', 'One’s own receipts.', gather.receiptsAnswer),
  route('post', '/receipts', 'Adds a file.', gather.addedAnswer, { body: 'file', status: 201 }),
  route('put', '/receipts/:id', 'Confirms what a receipt shows.', gather.receiptsAnswer, {
    body: gather.confirmSchema,
  }),
  route('delete', '/receipts/:id', 'Takes a receipt away.', gather.receiptsAnswer, { query: gather.seenQuery }),
  route('post', '/receipts/:id/read', 'Reads a receipt once more.', gather.receiptsAnswer, { body: gather.seenSchema }),
  route('post', '/receipts/:id/back', 'Brings a receipt back.', gather.receiptsAnswer),
  route('get', '/receipts/:id/pages/:page', 'A page as a picture.', null, { type: 'image/jpeg' }),
  route('get', '/receipts/:id/original', 'The file as it came; for auditors.', null, {
    type: 'application/octet-stream',
  }),

  route('get', '/charges', 'The charges of one’s own cards.', gather.chargesAnswer),
  route('put', '/charges/:id/mark', 'Says that a charge was claimed before.', gather.chargesAnswer, {
    body: gather.chargeMarkSchema,
  }),
  route('get', '/cards', 'Cards with their months.', gather.cardsAnswer),
  route('get', '/cards/:card/months/:month', 'A month with its proof.', gather.monthAnswer),
  route('put', '/cards/:card/months/:month/closed', 'Closes a month.', gather.monthAnswer, { body: gather.seenSchema }),
  route('delete', '/cards/:card/months/:month/closed', 'Opens a month again.', gather.monthAnswer, {
    query: gather.seenQuery,
  }),
  route('get', '/statements', 'Statements and the feed.', statements.statementsAnswer),
  route('post', '/statements', 'Imports a file.', statements.fileAnswer, { body: 'file' }),
  route('post', '/feed', 'Asks the bank now.', nothing, { status: 202 }),

  route('get', '/journals', 'A page of the ledger.', journals.journalsAnswer, { query: journals.journalPageSchema }),
  route('get', '/journals/ready', 'Claims that wait to be posted.', journals.readyAnswer),
  route('get', '/journals/export.csv', 'Journal rows.', null, { query: journals.exportSchema, type: 'text/csv' }),
  route('get', '/journals/:number', 'A journal.', journals.journalAnswer),
  route('post', '/journals/:number/reversal', 'Reverses a journal.', claims.postedAnswer, {
    body: journals.reverseSchema,
    status: 201,
  }),
  route('get', '/periods', 'The periods.', periods.periodsAnswer),
  route('post', '/periods/:entity/:id/close', 'Closes a period.', periods.periodsAnswer, {
    body: periods.closePeriodSchema,
  }),
  route('post', '/periods/:entity/:id/reopen', 'Opens a period again.', periods.periodsAnswer, {
    body: periods.reopenPeriodSchema,
  }),
  route('get', '/history.jsonl', 'Every event, for auditors.', null, { type: 'application/jsonl' }),
  route('get', '/journals.jsonl', 'Every journal, for auditors.', null, { type: 'application/jsonl' }),

  route('get', '/setup', 'The kinds of master data.', setup.kindsAnswer),
  route('get', '/setup/:kind', 'All rows of a kind.', setup.rowsAnswer),
  route('get', '/setup/:kind/rows.csv', 'All rows of a kind as a file.', null, { type: 'text/csv' }),
  route('get', '/setup/:kind/history/:key', 'What happened to a key.', setup.rowHistoryAnswer),
  route('post', '/setup/:kind', 'Adds a row, or changes what may change.', setup.rowsAnswer, {
    body: setup.addRowSchema,
    status: 201,
  }),
  route('post', '/setup/:kind/end', 'Ends a row.', setup.rowsAnswer, { body: setup.endRowSchema }),
  route('post', '/setup/:kind/file', 'Takes a file of rows, or says what it would do.', setup.fileAnswer, {
    body: setup.fileSchema,
  }),
];
