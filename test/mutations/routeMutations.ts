import type { Mutation } from './mutations.ts';
import { m } from './guard.ts';

const ROUTING = 'core/routing';
const KEPT = 'server/records/routing';
const APPROVALS = 'server/features/approvals';
const CLAIMS = 'server/features/claims';

/** Guards of who decides: routes, substitutes, decisions taken back, lines declined, owners asked. */
export const ROUTE_MUTATIONS: Mutation[] = [
  m('one’s own record', `${ROUTING}/_lib/seatOf.ts`, "if (id === claimant) return 'own';", '', ROUTING),
  m('what one prepared', `${ROUTING}/_lib/seatOf.ts`, "if (id === preparer) return 'prepared';", '', ROUTING),
  m('somebody who is away', `${ROUTING}/_lib/seatOf.ts`, "if (away.has(id)) return 'away';", '', ROUTING),
  m(
    'a substitute who cannot either',
    `${ROUTING}/_lib/seatOf.ts`,
    ' && staff.hindered(substitute) === null',
    '',
    ROUTING,
  ),
  m('a threshold that is reached', `${ROUTING}/computeRoute.ts`, 'inLimit > toMinor', 'inLimit >= toMinor', ROUTING),
  m('levels of another day', `${ROUTING}/computeRoute.ts`, ' && holdsOn(level, on)', '', ROUTING),
  m(
    'a level beside that nobody fills',
    `${ROUTING}/computeRoute.ts`,
    'l.place >= highest',
    'l.place > highest',
    ROUTING,
  ),
  m('before one’s turn', `${ROUTING}/standing.ts`, 'if (!waitingNeeds(needs).some(theirs)) return [];', '', ROUTING),
  m(
    'nobody left to decide',
    `${KEPT}/decide.ts`,
    'if (!unfilled) return;',
    'if (unfilled || !unfilled) return;',
    'server/features/plans',
  ),
  m(
    'a route that stays open',
    `${CLAIMS}/decisions.service.ts`,
    'const ended = await endRoute(trx, routedKey(row));',
    'const ended = {};',
    APPROVALS,
  ),
  m(
    'a substitute on other dates',
    'server/features/session/session.queries.ts',
    "where s.substitute_id = p.id and (?::timestamptz at time zone e.time_zone)::date\n            between coalesce(s.valid_from, '-infinity') and coalesce(s.valid_to, 'infinity') group",
    'where s.substitute_id = p.id and ?::timestamptz is not null group',
    APPROVALS,
  ),
  m(
    'taken back after somebody acted',
    'server/records/routing/lastDecider.ts',
    'row.decided_in === row.revision ? row.decided_by : null',
    'row.decided_by',
    APPROVALS,
  ),
  m(
    'a budget kept by what was taken back',
    'server/features/plans/decide.service.ts',
    '      approved_on: null,\n    },\n    jobs: await releasePlan(context, trx, row.number),',
    '      approved_on: null,\n    },\n    jobs: [],',
    'server/features/plans',
  ),
  m('listed to be taken back', `${APPROVALS}/approvals.queries.ts`, 'and c.revision = n.decided_in ', '', APPROVALS),
  m('one’s own in the list', `${APPROVALS}/approvals.service.ts`, ' && !isTheirs(record)', '', APPROVALS),
  m(
    'a route told to strangers',
    `${APPROVALS}/route.service.ts`,
    "if (!row || !audience) throw new Refused('not-found', { what: 'claim' });",
    "if (!row) throw new Refused('not-found', { what: 'claim' });",
    APPROVALS,
  ),
  m(
    'digits of another currency',
    `${APPROVALS}/route.service.ts`,
    "assertDecimals(amount, currency, ['total']);",
    '',
    APPROVALS,
  ),
  m('a code that is none', `${APPROVALS}/route.service.ts`, 'if (unknown >= 0)', 'if (false)', APPROVALS),
  m(
    'a line paid centrally',
    `${CLAIMS}/decisions.service.ts`,
    "line.paidBy === 'central' || line.personal || nothing",
    'line.personal || nothing',
    APPROVALS,
  ),
  m(
    'cleared without the owners',
    `${CLAIMS}/review.service.ts`,
    'if (owners.length === 0) return;',
    'if (owners) return;',
    APPROVALS,
  ),
  m(
    'owners asked about what was approved',
    'server/records/claims/addedCodes.ts',
    ' && raised.has(`${c.dimension} ${c.code}`)',
    '',
    APPROVALS,
  ),
  m(
    'owners asked about what is gone',
    `${KEPT}/askCodes.ts`,
    '(n) => (n.decided_by === null) !== wanted.has(codeOf(n))',
    '() => false',
    APPROVALS,
  ),
  m(
    'others’ codes agreed',
    `${KEPT}/askCodes.ts`,
    '&& n.people.some((person) => seats.includes(person))',
    '',
    APPROVALS,
  ),
  m(
    'owners still waited for whose code is gone',
    `${KEPT}/askCodes.ts`,
    'askedOf(there.filter((n) => !gone.includes(n)))',
    'askedOf(there)',
    APPROVALS,
  ),
  m(
    'owners of added codes not waited for',
    `${KEPT}/askCodes.ts`,
    '[...asked, ...needs.flatMap((n) => n.people)]',
    'asked',
    APPROVALS,
  ),
];
