import type { Mutation } from './mutations.ts';

/** Logic of the screens, turned round; the tests beside it have to fail. */
const m = (rule: string, file: string, find: string, put: string): Mutation => ({
  rule: `web: ${rule}`,
  file,
  find,
  put,
  tests: ['web'],
});

const CELLS = 'web/screens/Sheet/cells.ts';
const SPLIT = 'web/parts/convertSplit.ts';
const BENCH = 'web/screens/Sheet/bench.ts';
const FACTS = 'web/screens/Gather/facts.ts';
const TYPED = 'web/parts/typed.ts';

export const WEB_MUTATIONS: Mutation[] = [
  m('rows with something loose fold', CELLS, 'quiet: !loose && ', 'quiet: '),
  m('rows with a stop fold', CELLS, "findings.every((f) => f.severity === 'note')", 'true'),
  m('a mark counts for every kind of its line', CELLS, ' && m.kind === tie.kind', ''),
  m('the next cell does not start over', CELLS, ', ...cells.slice(0, at + 1)]', ']'),
  m(
    'a cut moves past its neighbour',
    SPLIT,
    'Math.max(0, Math.min(both, Math.round(at - before)))',
    'Math.round(at - before)',
  ),
  m(
    'percents that do not make 100',
    SPLIT,
    '  whole[whole.length - 1]! += 100 - whole.reduce((a, p) => a + p, 0);\n',
    '',
  ),
  m('amounts of another share', SPLIT, "'rest' : (grosses[i] ?? '0')", "'rest' : (grosses[0] ?? '0')"),
  m('a preview of another date', BENCH, 'preview?.date === date', 'preview'),
  m('the kept journal for any date', BENCH, 'view.document.postingDate === date ?', 'date ?'),
  m('an undo that sets every field', BENCH, '([field]) => field in set', '([field]) => field'),
  m('an undone waiver loses its reason', BENCH, '...(earlier?.reason ? { reason: earlier.reason } : {}),', ''),
  m('a mark without what it is about', BENCH, 'view?.ties.find(same)?.about', 'view?.ties.at(-1)!.about.slice(1)'),
  m('a group is read as decimals', TYPED, ".replace(/[.,]/g, '')", ''),
  m('two marks of one kind', TYPED, 'if (marks.length > 1 && !mixed) return null;', ''),
  m('nothing typed is zero', TYPED, '  if (!/\\d/.test(plain)) return null;\n', ''),
  m('decimals of another currency', TYPED, 'minorUnits(currency) ?? 2', '2'),
  m(
    'what was read before what was confirmed',
    'web/words/receiptSays.ts',
    "confirmed ? (confirmed[field] ?? '')",
    "!reading ? (confirmed![field] ?? '')",
  ),
  m('sent with a fault', FACTS, 'for (const field of FIELDS) say([field], faultOf(field, typed, today));', ''),
  m('ready on a guess', FACTS, "?.sure === 'sure'", '?.sure'),
  m(
    'a pair with what has gone',
    'web/screens/Gather/proposals.ts',
    '.every((side) => side.name !== null)',
    '.every(Boolean)',
  ),
  m(
    'the whole charge instead of what is left',
    'web/screens/Gather/proposals.ts',
    'amount: c.left',
    'amount: c.amount',
  ),
  m('the Desk for everybody', 'web/parts/places.ts', 'place.roles === null || ', 'true || '),
  m('an older decision’s reason', 'web/words/whereItIs.ts', 'history.findLast', 'history.find'),
  m('a bar of more than 100', 'web/words/tide.ts', 'raw.reduce((a, b) => a + b, 0)', '1'),
  m(
    'strangers are one spending',
    'web/screens/Gather/wishes.ts',
    'LEAST_OF_ONE_MERCHANT : PROOF',
    'LEAST_OF_ONE_MERCHANT : 0',
  ),
];
