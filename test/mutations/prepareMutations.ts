import type { Mutation } from './mutations.ts';
import { m } from './guard.ts';

const STATEMENTS = 'server/features/statements';
const CLAIMS = 'server/features/claims';
const DRAFT = 'server/records/claims/writtenDraft.ts';
const DRAFTS = 'server/records/claims/writtenDraft.api.test.ts';
const CORE = 'core/figures';
const PROPERTIES = 'test/properties';
const PREPARE = 'web/screens/Claims/prepare';

/** Guards of what is prepared: imports taken back, claims that are written, and what is computed of plans and cuts. */
export const PREPARE_MUTATIONS: Mutation[] = [
  m('an import that is used', `${STATEMENTS}/takeBack.service.ts`, 'if (uses.length > 0)', 'if (false)', STATEMENTS),
  m(
    'an import told of twice',
    `${STATEMENTS}/takeBack.queries.ts`,
    'o.statement_id <> s.statement_id',
    'false',
    STATEMENTS,
  ),
  m(
    'a cycle across months',
    'core/evidence/statements/cardCycle.ts',
    '? month : monthAfter(month)',
    '? month : month',
    'core/evidence/statements',
  ),
  m(
    'a claim with stops',
    `${CLAIMS}/submission.service.ts`,
    'if (!stop) return;',
    'if (stop || !stop) return;',
    CLAIMS,
  ),
  m('an order of other lines', `${CLAIMS}/drafts.service.ts`, 'order.length !== there.size || ', '', CLAIMS),
  m('days the wrong way round', `${CLAIMS}/drafts.service.ts`, 'tripTo < tripFrom', 'false', CLAIMS),
  m('an amount typed over a count', `${CLAIMS}/lines.service.ts`, 'line.quantity = null;', '', CLAIMS),
  m('what the bank said, by hand', `${CLAIMS}/lines.service.ts`, ' ?? set.paidBy ?? set.quantity', '', CLAIMS),
  m('a cut the bank took', `${CORE}/cut/piecesOf.ts`, "if (line.paidBy !== 'card')", 'if (line.paidBy)', PROPERTIES),
  m('either tolerance', `${CORE}/plan/judgeEstimates.ts`, 'least(planned).every(', 'least(planned).some(', CORE),
  m('the most that is reclaimed', `${CORE}/split/recoveryByCoding.ts`, '< 0 ? r : least', '> 0 ? r : least', CORE),
  m('a row that is not read', `${PREPARE}/pastedLines.ts`, 'problems.length > 0 || !date', '!date', PREPARE),
  m('a partner of before still named', DRAFT, '...other, ...beside, ', '...other, ', DRAFTS),
  m('a partner that is new not named', DRAFT, 'alikeTo(found, number, ask));', '[]);', DRAFTS),
  m('shown as it was stored before', DRAFT, ' && stored.by === (await selectWriting(db, key))', '', DRAFTS),
  m(
    'findings that stay as they were',
    'server/records/claims/assessments.queries.ts',
    'where findings is distinct from excluded',
    'where false',
    DRAFTS,
  ),
  m(
    'comparisons with evidence of before',
    'core/evidence/comparisons/rememberCase.ts',
    'forgetCompared(ties, last.evidence, about);',
    '',
    'core/evidence/comparisons/reviewCase.test.ts',
  ),
];
