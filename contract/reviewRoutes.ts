import { claimLifecycle } from '../core/workflow/lifecycles/claim.ts';
import * as claims from './claims.ts';
import { correctionSchema, correctionsSchema } from './corrections.ts';
import { markSchema } from './marks.ts';
import { actSchema, reasonedSchema } from './decisions.ts';
import * as drafts from './drafts.ts';
import { doing, type RouteContract } from './route.ts';

const { act, file, off } = doing(claimLifecycle, claims.claimAnswer);

/** What a reviewer does while a claim is in review, and what those do who are asked meanwhile. */
export const REVIEW_ROUTES: readonly RouteContract[] = [
  act('put', '/claims/:number/lines/:line', 'correct', 'Corrects a line in review.', correctionSchema),
  act('put', '/claims/:number/lines', 'correct', 'Corrects several lines at once.', correctionsSchema),
  act('post', '/claims/:number/marks', 'mark', 'Marks a comparison.', markSchema),
  act('post', '/claims/:number/queries', 'ask', 'Pins a question to a line.', claims.querySchema),
  act(
    'post',
    '/claims/:number/return-to-approver',
    'returnToApprover',
    'Sends it back to who approved it last.',
    reasonedSchema,
  ),
  act('post', '/claims/:number/send-queries', 'sendQueries', 'Sends what was pinned.', actSchema),
  off('/claims/:number/queries/:query', 'dropQuery', 'Takes a question back.'),
  act('put', '/claims/:number/queries/:query', 'answer', 'Answers a question.', drafts.answerSchema),
  file('/claims/:number/queries/:query/files', 'attachAnswer', 'Adds a file to an answer.'),
];
