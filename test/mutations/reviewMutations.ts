import type { Mutation } from './mutations.ts';
import { CLAIMS, DESK, m, REVIEW } from './guard.ts';

const QUERIES = `${CLAIMS}/queries.service.ts`;
const ASKING = `${CLAIMS}/queries.api.test.ts`;
const CORRECT = `${CLAIMS}/correct.service.ts`;
const CORRECTING = `${CLAIMS}/correct.api.test.ts`;
const RUN = `${CLAIMS}/clearing/clearing.service.ts`;
const RUNNING = `${CLAIMS}/clearing`;
const BESIDE = `${CLAIMS}/beside.api.test.ts`;

/** Guards of what a reviewer does: asking, correcting, clearing together, looking things up, and what the Desk tells whom. */
export const REVIEW_MUTATIONS: readonly Mutation[] = [
  m('a question answered by anybody asked', QUERIES, "makes !== (query.asks === 'claimant')", 'false', ASKING),
  m('a question answered before it is sent', QUERIES, '!query.sent || ', '', ASKING),
  m('a question answered twice', QUERIES, ' && !q.answered)', ')', ASKING),
  m('a claim cleared over a question', REVIEW, 'await refuseUnasked(trx, claim);', '', ASKING),
  m(
    'an unsent question read by its makers',
    `${CLAIMS}/makersView.ts`,
    'q.sent && !q.takenBack',
    '!q.takenBack',
    ASKING,
  ),
  m('a question taken back still read', `${CLAIMS}/makersView.ts`, 'q.sent && !q.takenBack', 'q.sent', ASKING),
  m(
    'what approvers are asked read by the makers',
    'core/workflow/audienceOf.ts',
    "audience !== 'claimant' || asks === 'claimant'",
    'true',
    ASKING,
  ),
  m(
    'files of answers shown to everybody on the claim',
    'server/features/attachments/attachments.routes.ts',
    'if (place.asks !== null) return seesQuestion(audience, place.asks);',
    '',
    ASKING,
  ),
  m('answers of approvers in the makers’ history', `${CLAIMS}/makersView.ts`, ' && isTold(e, audience)', '', ASKING),
  m(
    'questions left with approvers on a return',
    `${CLAIMS}/decisions.service.ts`,
    'await askMakersOnly(trx, at);',
    '',
    ASKING,
  ),

  m(
    'a card line paid otherwise',
    CORRECT,
    "if (set.paidBy && line.paidBy === 'card') throw",
    'if (false) throw',
    CORRECTING,
  ),
  m('a correction that cannot be', CORRECT, 'validCase(kept.document);', '', CORRECTING),
  m(
    'the reason of a cut among the facts',
    CORRECT,
    'cut === undefined ? fields :',
    'true ? { cut, ...fields } :',
    CORRECTING,
  ),
  m('a correction not written to the line', CORRECT, 'if (touched.has(line.id)) await', 'if (false) await', CORRECTING),
  m('corrections not told', REVIEW, 'correctedLines(submitted?.claim ?? null, kept.claim)', '[]', CORRECTING),

  m(
    'claims of others cleared together',
    RUN,
    "(claim) => audienceOf(claimFacts(claim), actor) === 'finance'",
    '() => true',
    RUNNING,
  ),
  m(
    'a claim changed since it was chosen',
    RUN,
    "if (revision !== seen) return 'It was changed since you chose it.';",
    '',
    RUNNING,
  ),
  m(
    'a claim that is not clean cleared with others',
    RUN,
    "return clean ? null : 'Not everything of it is tied.';",
    'return null;',
    RUNNING,
  ),
  m('no claim drawn', `${CLAIMS}/clearing/drawOf.ts`, 'Math.max(1, ', 'Math.max(0, ', RUNNING),
  m('a draw by the order of the claims', `${CLAIMS}/clearing/drawOf.ts`, '(a.lot < b.lot ? -1 : 1)', '0', RUNNING),
  m(
    'a run of somebody else stopped',
    RUN,
    "if (row?.person_id !== actor.id) throw new Refused('not-found', { what: 'run' });\n    if",
    'if',
    RUNNING,
  ),
  m(
    'a run of somebody else seen',
    RUN,
    "if (row?.person_id !== actor.id) throw new Refused('not-found', { what: 'run' });\n  const",
    'const',
    RUNNING,
  ),
  m('a stopped run that goes on', RUN, ' || row.stopped_at !== null', '', RUNNING),
  m(
    'one’s own claim told by a filter',
    `${DESK}/desk.queries.ts`,
    'return tells ? [where(',
    'return false ? [where(',
    DESK,
  ),
  m(
    'a filter of somebody else given up',
    `${DESK}/views.queries.ts`,
    ".where({ owner_id: person })\n    .whereRaw('id = ?'",
    ".whereRaw('id = ?'",
    DESK,
  ),
  m('filters of others', `${DESK}/views.queries.ts`, ".orWhere('v.shared', true)", ".orWhereRaw('true')", DESK),
  m('somebody who left still there', `${DESK}/here.queries.ts`, ".where('k.here_until', '>', at)", '', DESK),
  m('the next claim given to two', `${DESK}/here.service.ts`, 'await oneAtATime(trx);', '', BESIDE),
  m(
    'the next claim one’s own',
    `${DESK}/here.service.ts`,
    "!claim || audienceOf(claimFacts(claim), actor) !== 'finance'",
    '!claim',
    BESIDE,
  ),
  m(
    'a person looked up by who does not review',
    'server/records/claims/reviewedClaim.ts',
    "!row || (audience !== 'finance' && audience !== 'auditor')",
    '!row',
    BESIDE,
    DESK,
  ),
  m(
    'marks of other comparisons carried along',
    'server/records/claims/marks.queries.ts',
    ' and t.about = m.about',
    '',
    BESIDE,
  ),
  m(
    'a claim counted twice against a budget',
    `${CLAIMS}/beside.service.ts`,
    'u.budget === id && !isOwn(u)',
    'u.budget === id',
    BESIDE,
  ),
  m(
    'private parts among what was spent',
    `${CLAIMS}/beside.service.ts`,
    'personal || ledgerAmount',
    'ledgerAmount',
    BESIDE,
  ),
  m(
    'a budget kept over an unknown cost',
    'core/figures/coding/judgeCoding.ts',
    'kept && charged.some(',
    'false && charged.some(',
    'core/figures/policy',
  ),
  m('an approver asked where nobody approved', QUERIES, "if (asks === 'approver' &&", 'if (false &&', ASKING),
  m('filters kept without end', `${DESK}/desk.routes.ts`, '>= MOST_VIEWS)', '>= MOST_VIEWS + 1)', DESK),
];
