import { claimLifecycle } from '../core/workflow/lifecycles/claim.ts';
import * as claims from './claims.ts';
import * as drafts from './drafts.ts';
import * as gather from './gather.ts';
import { doing, GATHERERS, route, whoMay, type RouteContract } from './route.ts';

const { act, file, off } = doing(claimLifecycle, claims.claimAnswer);

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
  act('put', '/drafts/:number', 'edit', 'Changes the header of a claim in preparation.', drafts.headerSchema),
  act('post', '/drafts/:number/lines', 'write', 'Writes lines.', drafts.newLinesSchema),
  act('put', '/drafts/:number/lines', 'edit', 'Changes several lines alike.', drafts.linesSchema),
  act('put', '/drafts/:number/queries/:query', 'edit', 'Answers a query of a returned claim.', drafts.answerSchema),
  act('put', '/drafts/:number/explanations', 'edit', 'Says why to a finding.', drafts.explainSchema),
  act('put', '/drafts/:number/lines/:line/receipt', 'pair', 'Puts a receipt on a line.', drafts.putReceiptSchema),
  act('post', '/drafts/:number/lines/:line/parts', 'write', 'Divides a receipt over lines.', drafts.divideLineSchema),
  act('post', '/drafts/:number/lines/:line/repeat', 'edit', 'Has a line come again.', drafts.repeatSchema),
  route('get', '/drafts/:number/recurring', 'signed in', 'Lines that come again.', drafts.recurringAnswer),
  act(
    'post',
    '/drafts/:number/recurring/:id',
    'write',
    'Takes what is due, or passes over it.',
    drafts.dealRecurringSchema,
  ),
  off('/drafts/:number/recurring/:id', 'edit', 'Ends a line that comes again.'),
  file('/drafts/:number/attachments', 'edit', 'Adds a file to a claim.'),
  off('/drafts/:number/attachments/:id', 'edit', 'Takes a file off a claim.'),
  act('put', '/drafts/:number/order', 'edit', 'Puts the lines in another order.', drafts.orderSchema),
  route('post', '/drafts/lines', GATHERERS, 'Makes lines of receipts and charges.', gather.takenAnswer, {
    body: gather.takeSchema,
    status: 201,
  }),
  act('put', '/drafts/:number/lines/:line', 'edit', 'Changes a line in preparation.', drafts.lineSchema),
  off('/drafts/:number/lines/:line', 'remove', 'Takes a line off a claim in preparation.'),
];
