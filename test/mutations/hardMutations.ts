import type { Mutation } from './mutations.ts';
import { CLAIMS, m } from './guard.ts';

const HELPERS = 'server/platform/helpers';
const HTTP = 'server/platform/http';
const SESSION = 'server/features/session';
const BANK = 'server/platform/ports/bank.ts';
const ODD = 'test/faults/oddRequests.api.test.ts';

/** Guards against what is hostile, too large or too much. */
export const HARD_MUTATIONS: Mutation[] = [
  m('memory of a helper', `${HELPERS}/helper.ts`, "mb > this.megabytes && end('memory')", 'mb < 0', HELPERS),
  m('time of a helper', `${HELPERS}/helper.ts`, "setTimeout(() => end('time')", 'setTimeout(() => {}', HELPERS),
  m('a task whose helper had died', `${HELPERS}/helpers.ts`, 'tries === TRIES || !diedBefore(error)', 'true', HELPERS),
  m('a fair share of the helpers', `${HELPERS}/fairQueue.ts`, '(free > 1 || has(w.person) === 0)', 'true', HELPERS),
  m('too much that waits', `${HELPERS}/helpers.ts`, 'if (waiting.length >= limits.mostWaiting)', 'if (false)', HELPERS),
  m('an environment for helpers', `${HELPERS}/helper.ts`, 'env: {},', 'env: process.env,', HELPERS),
  m('another place than the bank', BANK, "redirect: 'manual'", "redirect: 'follow'", 'server/platform/ports'),
  m('a delivery without end', BANK, 'if (size > MOST_BYTES)', 'if (size > MOST_BYTES + 9)', 'server/platform/ports'),
  m('text that cannot be kept', `${HTTP}/guards.ts`, 'if (fault) throw', 'if (false) throw', 'test/faults'),
  m('a form that breaks off', `${HTTP}/upload.ts`, "new Refused('not-a-form')", 'error', ODD),
  m('a request that cannot be read', `${HTTP}/toRefused.ts`, 'status >= 400 && status < 500', 'false', ODD),
  m('a database that is away', `${HTTP}/toRefused.ts`, 'AWAY.test(code)', 'false', HTTP, ODD),
  m('requests without end', `${HTTP}/overload.ts`, 'if (underWay >= requests)', 'if (false)', HTTP),
  m('an address open to all roles', `${HTTP}/admit.ts`, 'hasAny(actor, who)', 'true', `${HTTP}/admit`),
  m('a token that makes tokens', `${HTTP}/admit.ts`, 'req.session?.personId ?', 'true ?', SESSION, `${HTTP}/admit`),
  m('guessing without a wait', `${HTTP}/guessing.ts`, 'if (longest > 0) throw', 'if (false) throw', SESSION),
  m('an owner locked out by guessing', `${HTTP}/guessing.ts`, 'if (device) return', 'if (false) return', SESSION),
  m(
    'guesses all at once',
    `${HTTP}/guessing.ts`,
    'refuseFor(await Promise.all(keys.map(count)))',
    'void count',
    SESSION,
  ),
  m('an address nobody named', `${HTTP}/admit.ts`, 'res.locals.admitted ?', 'true ?', `${HTTP}/admit`),
  m('a device anybody can say they have', `${HTTP}/guessing.ts`, 'timingSafeEqual(given, right)', 'true', SESSION),
  m(
    'parts without the decimals',
    'server/records/claims/minorOf.ts',
    'if (read === null) throw',
    'if (false) throw',
    CLAIMS,
    'server/features/gather',
  ),
  m(
    'a turn of reading',
    'server/features/receipts/receipts.service.ts',
    'countWaiting(trx, actor.id)',
    'Promise.resolve(0)',
    'server/features/receipts',
  ),
  m('figures for the world', `${HTTP}/watch.ts`, "if (req.get('x-forwarded-for'))", 'if (false)', HTTP),
  m('a claim of any size', 'core/documents/checkSize.ts', 'if (size > MOST)', 'if (false)', 'core/documents'),
];
