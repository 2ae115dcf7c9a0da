import { advanceLifecycle } from '../core/workflow/lifecycles/advance.ts';
import { FINANCE } from '../core/workflow/lifecycle.types.ts';
import * as advances from './advances.ts';
import { doing, route, whoMay, type RouteContract } from './route.ts';

const { act, file, off } = doing(advanceLifecycle, advances.advanceAnswer);

/** Every address of advances. */
export const ADVANCE_ROUTES: readonly RouteContract[] = [
  route(
    'get',
    '/advances',
    'signed in',
    'One’s own advances, and what finance has to do with others.',
    advances.advancesAnswer,
  ),
  route(
    'get',
    '/advances/register',
    FINANCE,
    'What is open, by person, entity and age, beside its account.',
    advances.registerAnswer,
    {
      query: advances.registerQuery,
    },
  ),
  route('get', '/advances/:number', 'signed in', 'An advance with where it stands.', advances.advanceAnswer),
  route('post', '/advances', whoMay(advanceLifecycle, 'begin'), 'Writes an advance down.', advances.begunAnswer, {
    body: advances.beginAdvanceSchema,
    status: 201,
  }),
  act('put', '/advances/:number', 'edit', 'Changes what is asked for.', advances.editAdvanceSchema),
  file('/advances/:number/attachments', 'edit', 'Adds a file to a request.'),
  off('/advances/:number/attachments/:id', 'edit', 'Takes a file off a request.'),
  act('post', '/advances/:number/request', 'request', 'Asks for an advance.', advances.seenAdvanceSchema),
  act(
    'post',
    '/advances/:number/call-back',
    'callBack',
    'Takes a request back to change it.',
    advances.seenAdvanceSchema,
  ),
  act(
    'post',
    '/advances/:number/withdraw',
    'withdraw',
    'Ends a request that is not wanted.',
    advances.seenAdvanceSchema,
  ),
  act(
    'post',
    '/advances/:number/bring-back',
    'bringBack',
    'Takes an ended request up again.',
    advances.seenAdvanceSchema,
  ),
  act('post', '/advances/:number/approve', 'approve', 'Approves an advance.', advances.approveAdvanceSchema),
  act('post', '/advances/:number/take-back', 'takeBack', 'Takes back a decision.', advances.seenAdvanceSchema),
  act('post', '/advances/:number/decline', 'decline', 'Declines an advance.', advances.declineAdvanceSchema),
  act('post', '/advances/:number/grant', 'grant', 'Grants an advance, or less, with its day.', advances.grantSchema),
  act('post', '/advances/:number/extend', 'extend', 'Gives more time to account for it.', advances.extendSchema),
  act('post', '/advances/:number/pay-out', 'payOut', 'Records the payout and posts it.', advances.payOutSchema),
  act(
    'post',
    '/advances/:number/give-back',
    'giveBack',
    'Records money given back and posts it.',
    advances.giveBackSchema,
  ),
  file('/advances/:number/payments/:payment/proofs', 'addProof', 'Adds the proof of a payout or a return.'),
];
