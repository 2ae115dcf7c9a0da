import type { Mutation } from './mutations.ts';
import { CLAIMS, m } from './guard.ts';

const TIES = 'core/evidence/comparisons';
const RECEIPT = `${TIES}/tieReceipt.ts`;
const TYING = `${TIES}/tieClaim.test.ts`;
const CLAIM = `${TIES}/tieClaim.ts`;
const PARTS = `${TIES}/paperParts.ts`;
const PARTING = `${TIES}/paperParts.test.ts`;
const READING = 'core/evidence/reading/readDocument.test.ts';
const FOUND = 'core/evidence/reading/_lib';
const SPLITS = `${CLAIMS}/splits.service.ts`;
const OFFERED = `${CLAIMS}/splits.queries.ts`;
const OFFERING = `${CLAIMS}/splits.api.test.ts`;
const PATCH = 'web/worker/patch.ts';
const PATCHING = 'web/worker/patch.test.ts';
const PREVIEWING = `${TIES}/reviewCase.test.ts`;

/** What a receipt says and does not say, what splits are offered, and what a preview leaves out because it did not change. */
export const EVIDENCE_MUTATIONS: readonly Mutation[] = [
  m('a paper that does not say what was bought taken', RECEIPT, "present('what was bought', bought)", '', TYING),
  m('a charge of the bank no proof of payment', RECEIPT, 'paid ?? (charge && ', 'paid ?? (null && ', TYING),
  m('what is paid centrally asked for proof', RECEIPT, " || sharing.every((l) => l.paidBy === 'central')", '', TYING),
  m('a shared paper asked about at each line', RECEIPT, 'line.id === context.sharing[0]!.id', 'true', TYING),
  m(
    'a shared sum decided at each line',
    RECEIPT,
    'if (line.id === first) return comparison;',
    'return comparison;',
    TYING,
  ),
  m('a row of a paper on two lines', PARTS, 'taken.every((line) => line === null)', 'true', PARTING),
  m('lines of another currency on a paper', PARTS, 'lines.some((l) => l.currency !== currency)', 'false', PARTING),
  m('what is still owed taken for paid', `${FOUND}/findPaid.ts`, 'if (OWED.test(words)) continue;', '', READING),
  m('less than the total taken for payment', `${FOUND}/findPaid.ts`, 'a.minor >= total', 'true', READING),
  m('sums and taxes taken for what was bought', `${FOUND}/findBought.ts`, ' || isNone(line.text)', '', READING),
  m(
    'comparisons kept though a rule says otherwise',
    CLAIM,
    '\n  && sameList(a.own, b.own, sameFields)',
    '',
    PREVIEWING,
  ),
  m(
    'comparisons kept though a line beside changed',
    CLAIM,
    '\n  && sameList(a.sharing, b.sharing, isSame)',
    '',
    PREVIEWING,
  ),
  m(
    'only additions told of a list',
    PATCH,
    'before.toSpliced(from, out, ...put)',
    'before.toSpliced(from, 0, ...put)',
    PATCHING,
  ),
  m(
    'splits offered by amount',
    OFFERED,
    "['percent', 'weight', 'equal']",
    "['percent', 'weight', 'equal', 'amount']",
    OFFERING,
  ),
  m('splits of anybody offered', OFFERED, "'c.claimant_id': claim.claimant_id, ", '', OFFERING),
  m('splits of the claim itself offered', OFFERED, ".whereNot('c.id', String(claim.id))", '', OFFERING),
  m(
    'splits shown of one’s own claim',
    SPLITS,
    'await reviewedClaim(db, actor, number)',
    'await reviewedClaim(db, { ...actor, id: "-" }, number)',
    OFFERING,
  ),
  m(
    'a unit of anything but weights',
    'core/documents/checkCase.ts',
    "part.split?.unit != null && part.split.by !== 'weight'",
    'false',
    OFFERING,
  ),
  m(
    'a stop that is no money at risk',
    'core/evidence/comparisons/summariseReview.ts',
    '[...loose, ...stopped]',
    'loose',
    'core/evidence/comparisons',
  ),
  m(
    'limits on several lines looked at line by line',
    'core/figures/policy/judgeLimits.ts',
    " && limit.per !== 'trip'",
    '',
    'core/figures/policy',
  ),
  m(
    'the first claim of a person by when it was begun',
    'server/records/claims/listed.queries.ts',
    '(x.submitted_on, x.id) < (c.submitted_on, c.id)',
    'x.id < c.id and x.submitted_version is not null',
    'server/features/desk',
  ),
];
