import type { Mutation } from './mutations.ts';
import { m } from './guard.ts';

const RECEIPTS = 'server/features/receipts';
const GATHER = 'server/features/gather';
const READING = 'server/platform/outside/reading';
const CORE_READING = 'core/evidence/reading';
const MATCHING = 'core/evidence/matching';

/** Guards of what is gathered: papers, readings, pairs, mail. */
export const GATHER_MUTATIONS: Mutation[] = [
  m('papers of somebody else', `${RECEIPTS}/papers.service.ts`, 'receipt?.ownerId !== actor.id', '!receipt', RECEIPTS),
  m('pages left out', `${RECEIPTS}/papers.service.ts`, 'wanted.length !== pages.length ||', '', RECEIPTS),
  m('two lines for one paper', `${RECEIPTS}/papers.service.ts`, 'if (use && used) throw', 'if (false) throw', RECEIPTS),
  m('a purchase to come', `${RECEIPTS}/receipts.service.ts`, 'date > addDays(now, 1)', 'false', RECEIPTS),
  m('a tax above its total', `${RECEIPTS}/receipts.service.ts`, '> magnitude(amount)', '< 0n', RECEIPTS),
  m('mail for who left', 'server/records/people/people.queries.ts', 'and p.active', '', RECEIPTS),
  m('a mail from several', `${READING}/mail.ts`, 'from.length === 1', 'from.length > 0', RECEIPTS),
  m('pages that were not read', `${READING}/readFile.ts`, 'unread.length > 0', 'false', READING),
  m('a page on its side', `${READING}/recognise.ts`, 'goodLetters(other) > goodLetters(best)', 'false', READING),
  m(
    'taxes that come to nothing',
    `${CORE_READING}/_lib/settleTaxes.ts`,
    'if (rests.has(',
    'if (true || rests.has(',
    CORE_READING,
  ),
  m('a difference without a name', `${MATCHING}/nearPair.ts`, 'differs: difference.says', 'differs: null', MATCHING),
  m('strangers far apart', `${MATCHING}/scorePair.ts`, ': MOST_DAYS_OF_STRANGERS', ': MOST_DAYS', MATCHING),
  m('parts that are no sum', `${GATHER}/partLine.ts`, 'sum === line.amount &&', '', GATHER),
  m(
    'a paper given up among others',
    `${RECEIPTS}/receipts.service.ts`,
    'error instanceof TooSlow && !again',
    'false',
    RECEIPTS,
  ),
  m(
    'large papers before small ones',
    `${RECEIPTS}/receipts.service.ts`,
    '- bytes.byteLength',
    '+ bytes.byteLength',
    RECEIPTS,
  ),
  m('a paper taken twice', `${GATHER}/take.service.ts`, 'receipt?.usedOn[0] && !charge', 'false', GATHER),
  m('letters nobody could read', `${READING}/readFile.ts`, 'letters ? [] : [i + 1]', '[]', READING),
  m('papers in other letters', `${READING}/recognise.ts`, 'best.letters || goodLetters(best) === 0', 'true', READING),
  m(
    'a yen sign read twice',
    `${READING}/joined.ts`,
    "last?.text === '¥' && next.text === SIGN_AGAIN",
    'false',
    READING,
  ),
  m('two papers in one picture', `${READING}/readFile.ts`, 'if (apart.length === 0)', 'if (true)', READING),
  m('two halves of one paper', `${CORE_READING}/papersApart.ts`, 'readings.every(isWhole) && ', '', CORE_READING),
  m('a bank’s rate of long ago', `${MATCHING}/bankRates.ts`, 'far <= MOST_DAYS', 'true', MATCHING),
  m('strong pairs for more weak ones', `${MATCHING}/pairUp.ts`, '(edge) => edge.worth)]', '() => 0)]', MATCHING),
  m(
    'a hand below the total',
    `${CORE_READING}/_lib/findTotal.ts`,
    'if (isScrawl(lines[i]!))',
    'if (false)',
    CORE_READING,
  ),
  m('papers that lie over each other', `${CORE_READING}/seemSeveral.ts`, '>= KINDS', '> 9', CORE_READING),
  m(
    'one thing twice on one paper',
    `${CORE_READING}/seemSeveral.ts`,
    'const KINDS = 2',
    'const KINDS = 1',
    CORE_READING,
  ),
];
