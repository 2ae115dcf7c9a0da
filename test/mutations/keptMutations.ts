import { CLAIMS, JOURNALS, m, POST, REVIEW } from './guard.ts';
import type { Mutation } from './mutations.ts';

const KEPT = 'server/records/claims';
const DECIDED = `${CLAIMS}/decided.api.test.ts`;
const DAYS = `${CLAIMS}/days.api.test.ts`;
const DRIVEN = `${CLAIMS}/driven.api.test.ts`;
const GO_ON = 'server/features/approvals/goOn.api.test.ts';
const POSTABLE = `${KEPT}/assertPostable.ts`;
const STATES = 'server/platform/db/states.api.test.ts';
const CLEARING = `${CLAIMS}/clearing`;
const HTTP = 'server/platform/http';
const STATE_GUARDS = 'server/platform/db/migrations/030_guards.ts';
const PROVED = 'server/platform/db/migrations/031_proved.ts';

/** What was approved, what a day is, what the database keeps, and who goes on deciding. */
export const KEPT_MUTATIONS: Mutation[] = [
  m('cleared beyond what was approved', REVIEW, '    await refuseRaised(trx, claim, assessed);\n', '', DECIDED),
  m('posted beyond what was approved', POSTABLE, '  await refuseRaised(db, claim, assessed);\n', '', DECIDED, DAYS),
  m(
    'no figures kept at approval',
    `${CLAIMS}/decisions.service.ts`,
    'if (last) await keepApproved',
    'if (false) await keepApproved',
    DECIDED,
  ),
  m('any raise tolerated', `${KEPT}/approved.ts`, '(now - before) * 10_000n > tolerated', 'false', DECIDED),
  m(
    'posted before the day of a line',
    'core/evidence/comparisons/judgeDates.ts',
    '...(line.date > postingDate ?',
    '...(false ?',
    DAYS,
  ),
  m('a line of after the submission', 'core/evidence/comparisons/judgeDates.ts', '...(late ?', '...(false ?', DAYS),
  m(
    'an advance accounted for before its payout',
    POSTABLE,
    '  await refuseEarly(db, takenOf(assessed), date);\n',
    '',
    DAYS,
  ),
  m(
    'posted as assessed for another day',
    POST,
    'await subjectAgain(trx, row, kept), date);',
    'await subjectAgain(trx, row, kept), kept.document.postingDate);',
    DAYS,
    JOURNALS,
  ),
  m(
    'today by UTC at submission',
    `${CLAIMS}/submission.service.ts`,
    'row.submitted_on = today(context.clock, timeZone);',
    "row.submitted_on = today(context.clock, 'UTC');",
    DAYS,
  ),
  m(
    'today by UTC in the ledger',
    'server/records/book/postingDate.ts',
    '  const date = today(clock, timeZone);',
    "  const date = today(clock, 'UTC');",
    DAYS,
  ),
  m(
    'any day proposed',
    'server/records/book/postingDate.ts',
    'if (open.some((p) => holds(p, date)))',
    'if (true)',
    DAYS,
  ),
  m(
    'waived by the rates of one day',
    `${KEPT}/holdingMarks.ts`,
    'const rates = before !== null && onlyRatesDiffer(before, now);',
    'const rates = false;',
    DAYS,
  ),
  m(
    'waived by other rules',
    `${KEPT}/holdingMarks.ts`,
    '\n  && canonical(before.document.claim) === canonical(now.document.claim)',
    '',
    `${KEPT}/holdingMarks.test.ts`,
  ),
  m(
    'what was driven on other claims',
    `${KEPT}/driven.ts`,
    '[...others, ...journeys.filter',
    '[...journeys.filter',
    DRIVEN,
  ),
  m(
    'two who drive at once',
    `${KEPT}/driven.ts`,
    'if (lines.some((l) => l.journey)) await',
    'if (false) await',
    DRIVEN,
  ),
  m(
    'a draft that lowers others',
    `${KEPT}/driven.queries.ts`,
    'c.state = any(?)',
    "(c.state = any(?) or c.state = 'draft')",
    DRIVEN,
  ),
  m(
    'the decision of one who left',
    'core/routing/continueRoute.ts',
    'if (open.length === 0 || sameNeeds(open, waited)) return null;',
    'return null;',
    GO_ON,
  ),
  m(
    'decided twice by one',
    'core/routing/continueRoute.ts',
    '.filter((need) => !need.people.some((p) => people.has(p)))',
    '',
    'core/routing',
  ),
  m(
    'a used-up plan that stays so',
    POST,
    '...(kept.claim.plan ? await takeUpPlan(context, trx, kept.claim.plan.number) : []),',
    '',
    'server/features/plans',
  ),
  m(
    'a reversal that keeps the budget',
    POST,
    '...(await holdBudget(trx, { source, stage: null, at: context.clock.now() }, [])),\n    ...(await settle',
    '...(await settle',
    JOURNALS,
    'server/features/plans',
  ),
  m(
    'drawn by a seed that is known',
    `${CLEARING}/clearing.service.ts`,
    "const seed = randomBytes(32).toString('hex');",
    "const seed = '0'.repeat(64);",
    CLEARING,
  ),
  m(
    'drawn among the unclean',
    `${CLEARING}/clearing.service.ts`,
    'claims.filter((c) => against.get(c.number) === null)',
    'claims',
    CLEARING,
  ),
  m('states in any order', STATE_GUARDS, 'if before <> new.state and not exists', 'if false and not exists', STATES),
  m(
    'a change that nothing tells of',
    STATE_GUARDS,
    '      if not exists (select 1 from events e where e.record_kind = tg_argv[0]',
    '      if false and not exists (select 1 from events e where e.record_kind = tg_argv[0]',
    STATES,
  ),
  m(
    'a posted claim without its journal',
    STATE_GUARDS,
    'create constraint trigger claims_agree after insert or update of state, version',
    'create constraint trigger claims_agree after delete',
    STATES,
  ),
  m('a session that leaves no event', PROVED, "'signed in',", "'seen',", 'server/features/session/session.api.test.ts'),
  m(
    'a poster who shows nothing',
    'server/platform/db/migrations/031_proved.ts',
    'if acts(poster, proof) is not true then',
    'if false then',
    STATES,
  ),
  m(
    'guesses all at once',
    `${HTTP}/guessing.ts`,
    'return Math.max(1, Math.ceil',
    'return Math.max(0, Math.floor',
    'server/features/session/session.api.test.ts',
  ),
  m(
    'secrets anybody guesses',
    `${HTTP}/secrets.ts`,
    'const SHORTEST = 24;',
    'const SHORTEST = 1;',
    `${HTTP}/secrets.test.ts`,
  ),
  m(
    'work begun while stopping',
    `${HTTP}/closing.ts`,
    "if (closing.begun) return next((res.set('Connection', 'close'), new Refused('away', COME_BACK)));",
    '',
    `${HTTP}/closing.api.test.ts`,
  ),
  {
    rule: 'web: changes since whichever version',
    file: 'web/words/compareVersions.ts',
    find: 'chosen ?? seen ?? version - 1',
    put: 'chosen ?? version - 1',
    tests: ['web/words'],
  },
  {
    rule: 'web: changes the wrong way round',
    file: 'web/words/compareVersions.ts',
    find: 'compareVersions(earlier, { claim: document.claim, assessment })',
    put: 'compareVersions({ claim: document.claim, assessment }, earlier)',
    tests: ['web/words'],
  },
];
