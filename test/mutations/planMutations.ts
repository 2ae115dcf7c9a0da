import type { Mutation } from './mutations.ts';
import { m } from './guard.ts';

const PLANS = 'server/features/plans';
const CLAIMS = 'server/features/claims';
const FACTS = `${CLAIMS}/facts.api.test.ts`;
const SUBMISSION = `${CLAIMS}/submission.api.test.ts`;
const REVIEW = `${CLAIMS}/review.api.test.ts`;
const CORE = 'core/figures/plan';

/** Guards of plans, of what categories ask, and of what is said before a claim is handed in. */
export const PLAN_MUTATIONS: Mutation[] = [
  m(
    'a plan that is not whole',
    `${PLANS}/decide.service.ts`,
    'if (!first) return;',
    'if (first || !first) return;',
    PLANS,
  ),
  m('a budget above what is left', `${PLANS}/decide.service.ts`, 'if (over)', 'if (false)', PLANS),
  m('two claims of one plan', `${PLANS}/decide.service.ts`, 'if (claim !== null) throw', 'if (false) throw', PLANS),
  m('a rehearsal that stays', `${PLANS}/plans.service.ts`, 'throw done;', 'return;', PLANS),
  m('a plan that lapses too early', `${PLANS}/plans.queries.ts`, "'<', before", "'<=', before", PLANS),
  m(
    'a plan kept beside its claim',
    `${CLAIMS}/review.service.ts`,
    'await releasePlan(context, trx, plan)',
    '[]',
    PLANS,
  ),
  m(
    'a plan not reserved again',
    `${CLAIMS}/review.service.ts`,
    'await reserveAgain(context, trx, plan.number)',
    '[]',
    PLANS,
  ),
  m('a plan of a stranger', `${PLANS}/view.service.ts`, '!row || !audience', '!row', PLANS),
  m('a private night', `${CORE}/valueEstimate.ts`, ' - apart.size', '', CORE),
  m('the lowest of the caps', `${CORE}/valueEstimate.ts`, '< 0;', '> 0;', CORE),
  m('an estimate without a price', `${CORE}/missingOfPlan.ts`, 'price === null ?', 'false ?', CORE),
  m('a claim for somebody else', 'core/workflow/lifecycles/_lib/define.ts', ", as: ['claimant'] })", ' })', FACTS),
  m('a word that is wanted', `${CLAIMS}/submission.service.ts`, 'if (unsaid)', 'if (false)', SUBMISSION),
  m(
    'a statement of another day',
    `${CLAIMS}/submission.service.ts`,
    'statement.version !== accepted',
    'false',
    SUBMISSION,
  ),
  m('a word to another finding', 'core/workflow/wordsWanted.ts', ' && e.about === finding.says', '', 'core/workflow'),
  m('a word to what is not said', `${CLAIMS}/drafts.service.ts`, 'if (!isSaid)', 'if (false)', FACTS),
  m('a word that went stale', `${CLAIMS}/submission.service.ts`, 'holds.length === words.length', 'true', FACTS),
  m('an answer to somebody’s query', `${CLAIMS}/queries.queries.ts`, 'version: version - 1', 'version', REVIEW),
  m('an amount over a journey', `${CLAIMS}/lines.service.ts`, 'if (set.amount && isComputed)', 'if (false)', FACTS),
  m(
    'what the next category drops',
    `${CLAIMS}/lines.service.ts`,
    'if (set.category) Object',
    'if (false) Object',
    CLAIMS,
  ),
];
