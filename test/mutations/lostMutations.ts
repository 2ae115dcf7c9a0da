import { CLAIMS, m } from './guard.ts';
import type { Mutation } from './mutations.ts';

const DECLINED = 'server/records/claims/declined.ts';
const ONCE = 'server/platform/db/once.ts';
const KEYED = 'server/platform/http/keepKeys.api.test.ts';
const CARRIED = `${CLAIMS}/carried.api.test.ts`;
const SAVER = 'web/parts/saver.ts';
const SENT = 'web/api/once.ts';
const STANDS = 'web/screens/Sheet/stands.ts';

const web = (rule: string, file: string, find: string, put: string): Mutation => ({
  rule: `web: ${rule}`,
  ...{ file, find, put, tests: ['web'] },
});

/** What is typed and pressed happens once, or is said not to have happened. */
export const LOST_MUTATIONS: Mutation[] = [
  m('a twin that lost says so', ONCE, '    if (meanwhile) return given<T>(meanwhile);\n', '', KEYED),
  m('a key of every address', 'server/platform/http/keepKeys.ts', '`${req.method} ${req.path}`', "'any'", KEYED),
  m('any text as a key', 'server/platform/http/keepKeys.ts', '!KEY.test(key)', 'false', KEYED),
  m('a posting without a key', 'server/platform/http/admit.ts', 'needsKey && req', 'false && req', KEYED),
  m(
    'a page of somebody else',
    'server/features/session/session.routes.ts',
    'actor && actor.id === of',
    'actor',
    'server/features/session/session.api.test.ts',
  ),
  m(
    'what looks alike of others',
    `${CLAIMS}/makersView.ts`,
    "(kind !== 'duplicate' || ownAlike.has(alike[i]?.claim ?? ''))",
    'true',
    `${CLAIMS}/differs.api.test.ts`,
  ),
  m(
    'a paper that says otherwise',
    `${CLAIMS}/makersView.ts`,
    "new Set(['receipt', 'card', 'duplicate'])",
    "new Set(['card', 'duplicate'])",
    `${CLAIMS}/differs.api.test.ts`,
  ),
  m(
    'a line alike in the same draft',
    'server/records/claims/evidence.queries.ts',
    '(c.id = :claim or c.state not in',
    '(c.state not in',
    `${CLAIMS}/differs.api.test.ts`,
  ),
  m('a token told twice', 'server/features/session/tokens.service.ts', 'if (made !== hash)', 'if (false)', KEYED),
  m(
    'a decline lost by the next version',
    `${CLAIMS}/decisions.service.ts`,
    '  await carryDeclined(trx, at, async () => (await claimFromRows(trx, row, row.submitted_on!)).lines);\n',
    '',
    CARRIED,
  ),
  m('a decline of a line that changed', DECLINED, 'about !== fingerprint(line)', 'about === null', CARRIED),
  m('a decline that is shown no more', DECLINED, 'd.about !== null && !holds.has(d.line_id)', 'false', CARRIED),
  web('sent again for another revision', SAVER, 'edit.sentFor ??= around', 'edit.sentFor = around'),
  web('an ended session loses what was typed', SAVER, " || code === 'not-signed-in')", ')'),
  web('an act that does not wait', SAVER, "      while (state === 'saving') await settled();\n", ''),
  web('an act past what waits', SAVER, "if (state === 'away' || state === 'ended') throw", 'if (false) throw'),
  web('an act past what was refused', SAVER, '      if (against) throw', '      if (false) throw'),
  web(
    'what is gone is not offered',
    SAVER,
    '    if (anew) around.onGone(edit.says, anew);\n    else around',
    '    around',
  ),
  web('what waits goes over what others changed', SAVER, 'queue.filter((edit) => !isMet(edit))', '[]'),
  web('what is sent goes over what others changed', SAVER, '    if (!isMet(edit)) return foreign(view);\n', ''),
  web('own edits are taken for those of others', SAVER, ') edit.over = edit.of?.(next);', ') continue;'),
  web(
    'what is heard is taken for that of others',
    SAVER,
    "if (state === 'idle') view = next;",
    'if (true) view = next;',
  ),
  web('an old answer for a new record', SAVER, 'if (isNewer(view, next)) foreign(view);', 'if (false) foreign(view);'),
  web('a key dropped unread', SENT, ' && !isTurnedAway(error)', ''),
  web('a new key for what is not answered', SENT, 'open.get(what) ?? randomKey', 'randomKey'),
  web('an act on what somebody answered', STANDS, ' && alike(asked(before), asked(after))', ''),
  web('an act on another line', STANDS, 'alike(of(before), of(after))', 'true'),
  web('the first tax code of all', 'web/parts/taxCodesFor.ts', 'own.length === 1', 'true'),
];
