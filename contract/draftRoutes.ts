import type { z } from 'zod';
import { claimLifecycle, type ClaimAct } from '../core/workflow/lifecycles/claim.ts';
import * as claims from './claims.ts';
import * as drafts from './drafts.ts';
import * as gather from './gather.ts';
import { GATHERERS, route, whoMay, type RouteContract } from './route.ts';

/** An act on a claim in preparation; it answers with the claim as it is afterwards. */
const draft = (method: 'put' | 'post', path: string, name: ClaimAct, says: string, body: z.ZodType): RouteContract =>
  route(method, path, whoMay(claimLifecycle, name), says, claims.claimAnswer, { body });

/** Every address of claims in preparation. */
export const DRAFT_ROUTES: readonly RouteContract[] = [
  route('post', '/drafts', whoMay(claimLifecycle, 'begin'), 'Begins a claim.', drafts.begunAnswer, {
    body: drafts.beginSchema,
    status: 201,
  }),
  route(
    'get',
    '/drafts/beginnings',
    whoMay(claimLifecycle, 'begin'),
    'With what a claim can be begun.',
    drafts.beginningsAnswer,
    {
      query: drafts.beginningsQuery,
    },
  ),
  draft('put', '/drafts/:number', 'edit', 'Changes the header of a claim in preparation.', drafts.headerSchema),
  draft('post', '/drafts/:number/lines', 'write', 'Writes lines.', drafts.newLinesSchema),
  draft('put', '/drafts/:number/lines', 'edit', 'Changes several lines alike.', drafts.linesSchema),
  draft('put', '/drafts/:number/queries/:query', 'edit', 'Answers a query of a returned claim.', drafts.answerSchema),
  draft('put', '/drafts/:number/explanations', 'edit', 'Says why to a finding.', drafts.explainSchema),
  draft('put', '/drafts/:number/lines/:line/receipt', 'pair', 'Puts a receipt on a line.', drafts.putReceiptSchema),
  draft('post', '/drafts/:number/lines/:line/parts', 'write', 'Divides a receipt over lines.', drafts.divideLineSchema),
  draft('post', '/drafts/:number/lines/:line/repeat', 'edit', 'Has a line come again.', drafts.repeatSchema),
  route('get', '/drafts/:number/recurring', 'signed in', 'Lines that come again.', drafts.recurringAnswer),
  draft(
    'post',
    '/drafts/:number/recurring/:id',
    'write',
    'Takes what is due, or passes over it.',
    drafts.dealRecurringSchema,
  ),
  route(
    'delete',
    '/drafts/:number/recurring/:id',
    whoMay(claimLifecycle, 'edit'),
    'Ends a line that comes again.',
    claims.claimAnswer,
    { query: gather.seenQuery },
  ),
  route(
    'post',
    '/drafts/:number/attachments',
    whoMay(claimLifecycle, 'edit'),
    'Adds a file to a claim.',
    claims.claimAnswer,
    {
      body: 'file',
      status: 201,
      query: gather.seenQuery,
    },
  ),
  route(
    'delete',
    '/drafts/:number/attachments/:id',
    whoMay(claimLifecycle, 'edit'),
    'Takes a file off a claim.',
    claims.claimAnswer,
    { query: gather.seenQuery },
  ),
  draft('put', '/drafts/:number/order', 'edit', 'Puts the lines in another order.', drafts.orderSchema),
  route('post', '/drafts/lines', GATHERERS, 'Makes lines of receipts and charges.', gather.takenAnswer, {
    body: gather.takeSchema,
    status: 201,
  }),
  draft('put', '/drafts/:number/lines/:line', 'edit', 'Changes a line in preparation.', drafts.lineSchema),
  route(
    'delete',
    '/drafts/:number/lines/:line',
    whoMay(claimLifecycle, 'remove'),
    'Takes a line off a claim in preparation.',
    claims.claimAnswer,
    {
      query: gather.seenQuery,
    },
  ),
];
