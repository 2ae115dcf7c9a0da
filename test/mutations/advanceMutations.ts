import type { Mutation } from './mutations.ts';
import { m } from './guard.ts';

const CORE = 'core/advances';
const FEATURE = 'server/features/advances';
const KEPT = 'server/records/advances';
const CLAIMS = 'server/features/claims';
const MESSAGES = 'server/features/messages';
const TELLING = 'server/platform/messages';
const LEDGER = 'core/ledger';

/** Guards of advances, and of who hears of what. */
export const ADVANCE_MUTATIONS: Mutation[] = [
  m('an advance for a contractor', `${CORE}/judgeRequest.ts`, "wanted.person.kind === 'contractor'", 'false', CORE),
  m('a limit that is reached', `${CORE}/judgeRequest.ts`, 'open <= limit', 'open < limit', CORE),
  m('overdue on its day', `${CORE}/judgeRequest.ts`, 'dueBy < on', 'dueBy <= on', CORE),
  m(
    'a rule of another entity',
    `${CORE}/judgeRequest.ts`,
    '!r.entities || r.entities.includes(wanted.entity)',
    'true',
    CORE,
  ),
  m('an exception without a reason', `${FEATURE}/judge.ts`, 'problems[0] && !reason', 'false', FEATURE),
  m(
    'rules when it is granted',
    `${FEATURE}/decide.service.ts`,
    'refuseProblems(problems, row.exception ?? reason ?? null);',
    '',
    FEATURE,
  ),
  m(
    'rules when it is asked for',
    `${FEATURE}/advances.service.ts`,
    'refuseProblems(problems, row.exception);',
    '',
    FEATURE,
  ),
  m('more than was asked for', `${FEATURE}/decide.service.ts`, 'if (amount > requested)', 'if (false)', FEATURE),
  m('less without a reason', `${FEATURE}/decide.service.ts`, 'amount < requested && !reason', 'false', FEATURE),
  m('a day that is past', `${FEATURE}/decide.service.ts`, 'if (day < on)', 'if (false)', FEATURE),
  m('a plan of somebody else', `${FEATURE}/advances.service.ts`, 'plan?.claimant_id !== person.id', '!plan', FEATURE),
  m('more back than is open', `${FEATURE}/payments.service.ts`, 'if (amount > item.open)', 'if (false)', FEATURE),
  m('back before it was paid', `${FEATURE}/payments.service.ts`, 'said.date < paidOn', 'false', FEATURE),
  m(
    'another amount in the same currency',
    `${FEATURE}/payments.service.ts`,
    'row.currency === entity.currency && bank !== amount',
    'false',
    FEATURE,
  ),
  m(
    'any account as a bank',
    `${FEATURE}/payments.service.ts`,
    'taken || !(await hasAccount(trx, account))',
    'false',
    FEATURE,
  ),
  m(
    'an advance that is not settled',
    `${FEATURE}/payments.service.ts`,
    'await settleAdvances(context, trx, [number])',
    '[] as Awaited<ReturnType<typeof settleAdvances>>',
    FEATURE,
  ),
  m(
    'a draft shown to finance',
    `${KEPT}/advanceStore.ts`,
    'submitted: row.requested_on !== null',
    'submitted: true',
    FEATURE,
  ),
  m('payments shown to approvers', `${FEATURE}/view.service.ts`, "audience !== 'approver'", 'true', FEATURE),
  m(
    'proofs shown to approvers',
    'server/features/attachments/attachments.routes.ts',
    " && !(place.proves && audience === 'approver')",
    '',
    FEATURE,
  ),
  m(
    'a register of other entities',
    `${FEATURE}/view.service.ts`,
    'held === null || held.includes(entity) ? [entity] : []',
    '[entity]',
    FEATURE,
  ),
  m(
    'a register of another day',
    `${FEATURE}/advances.queries.ts`,
    ' and j.date <= ?::date) s',
    ' and ?::date is not null) s',
    FEATURE,
  ),
  m('an advance of somebody else', `${CLAIMS}/drafts.service.ts`, 'if (!usable.has(advance))', 'if (false)', FEATURE),
  m(
    'advances a claim begins with',
    'server/records/claims/beginClaim.ts',
    'if (open.length > 0)',
    'if (false)',
    FEATURE,
  ),
  m(
    'a part that is worth nothing in the ledger',
    `${LEDGER}/row.ts`,
    ' || (r.moves !== undefined && r.amount !== 0n)',
    '',
    LEDGER,
    'test/properties/advances',
  ),
  m('who did it', 'core/workflow/concerned.ts', 'person !== actor && ', '', 'core/workflow', MESSAGES),
  m('who was asked before', 'core/workflow/concerned.ts', ' && !asked?.has(person)', '', 'core/workflow'),
  m(
    'messages of others',
    `${MESSAGES}/messages.queries.ts`,
    "messages(db).where('m.person_id', person)",
    'messages(db)',
    MESSAGES,
  ),
  m(
    'what came after',
    `${MESSAGES}/messages.queries.ts`,
    "'(at, id) <= (select at, id from messages where id = ? and person_id = ?)'",
    "'(?::text is not null and ?::text is not null)'",
    MESSAGES,
  ),
  m(
    'read for others',
    `${MESSAGES}/messages.queries.ts`,
    "await db('messages')\n    .where({ person_id: person })",
    "await db('messages')",
    MESSAGES,
  ),
  m(
    'a mail that is sent by two',
    `${MESSAGES}/messages.queries.ts`,
    "    .forUpdate()\n    .skipLocked()\n    .first('id', 'person_id');",
    "    .first('id', 'person_id');",
    MESSAGES,
  ),
  m(
    'a mail for who wants none',
    `${TELLING}/tell.queries.ts`,
    "case when ? then 'none' else p.mail end",
    "case when ? then 'none' else 'at once' end",
    MESSAGES,
  ),
  m(
    'a stand-in on other dates',
    `${MESSAGES}/messages.queries.ts`,
    "where ?::date between coalesce(s.valid_from, '-infinity') and coalesce(s.valid_to, 'infinity')\n         and m.facts",
    'where ?::date is not null\n         and m.facts',
    MESSAGES,
  ),
  m(
    'a stand-in for oneself',
    `${MESSAGES}/messages.queries.ts`,
    " and m.facts ->> 'whose' <> s.substitute_id",
    '',
    MESSAGES,
  ),
  m('reminded twice', `${FEATURE}/remind.service.ts`, ' || row.reminded_for === day', '', MESSAGES),
  m(
    'told to who lost the role',
    `${TELLING}/tell.queries.ts`,
    ' and (r.entity_id is null or r.entity_id = ?::text)',
    ' and (r.entity_id is null or ?::text is not null)',
    MESSAGES,
  ),
  m(
    'markup in a mail',
    `${MESSAGES}/writeMail.ts`,
    'text.replace(/[&<>"\']/g, (sign) => SIGNS[sign]!)',
    'text',
    MESSAGES,
  ),
  m('a session the page keeps alive', 'server/platform/http/byItself.ts', 'delete req.session;', '', MESSAGES),
];
