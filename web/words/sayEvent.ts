import { format, parseISO } from 'date-fns';
import type { HistoryEvent } from '../api/claims.ts';

const str = (value: unknown): string => (typeof value === 'string' || typeof value === 'number' ? String(value) : '');

/** "line 3", or "lines 1 to 4, 7": lines that follow each other are drawn together. Claims are not named. */
function list(lines: unknown): string {
  const names = (Array.isArray(lines) ? lines : []).map((l) => str(l).split('/').at(-1)!);
  const runs: string[][] = [];
  for (const name of names) {
    const run = runs.at(-1);
    if (run && Number(name) === Number(run.at(-1)) + 1) run.push(name);
    else runs.push([name]);
  }
  const parts = runs.flatMap((run) => (run.length > 2 ? [`${run[0]} to ${run.at(-1)}`] : run));
  return `${names.length === 1 ? 'line' : 'lines'} ${parts.join(', ')}`;
}

type Words = Pick<HistoryEvent, 'facts' | 'words'>;
export type Sayings = Partial<Record<string, (event: Words) => string>>;

const withReason = ({ words }: Words): string => (words?.reason ? `: ${str(words.reason)}` : '');
/** What fields are called where their own name says too little. */
const FIELD_NAMES: Record<string, string> = {
  attachments: 'files',
  financeNote: 'the note for finance',
  paidBy: 'who paid',
  rebill: 'to whom it is charged on',
  recurring: 'what comes again',
  repeat: 'what comes again',
  tripFrom: 'first day',
  tripTo: 'last day',
};
const names = (value: unknown): string =>
  Array.isArray(value) ? value.map((field) => FIELD_NAMES[str(field)] ?? str(field)).join(', ') : '';
const fixed = (says: string) => () => says;
const reasoned = (says: string) => (event: Words) => `${says}${withReason(event)}`;

function sayMark(event: Words): string {
  const { line, tie, mark, also } = event.facts;
  const more = Array.isArray(also) ? ` and ${also.length} more` : '';
  const cell = `line ${str(line)} ${str(tie)}${more}`;
  if (mark === 'none') return `took back the mark on ${cell}`;
  return `${mark === 'seen' ? 'ticked' : 'waived'} ${cell}${withReason(event)}`;
}

/** What fields of a correction are called. */
const CORRECTED: Record<string, string> = { cut: 'the amount allowed', paidBy: 'who paid' };

function sayCorrection({ facts, words }: Words): string {
  const changes = Array.isArray(facts.changes)
    ? (facts.changes as { to: object }[])
    : [{ to: (facts.to as object) ?? {} }];
  const fields = [...new Set(changes.flatMap(({ to }) => Object.keys(to)))].map((f) => CORRECTED[f] ?? f).join(', ');
  if (facts.lines) return `corrected ${list(facts.lines)}: ${fields}`;
  const item = facts.item ? `, item ${str(facts.item)}` : '';
  return `corrected line ${str(facts.line)}${item}: ${fields}${withReason({ facts, words })}`;
}

const WENT_ON = fixed('sent it on: who it waited for has left, is away or is back');

/** What is said of each kind of event a claim's acts leave. */
export const SAYS: Sayings = {
  drafted: fixed('began the claim'),
  gathered: ({ facts }) => `put ${list(facts.lines)} on it from what was gathered`,
  edited: ({ facts }) => `changed ${facts.line ? `line ${str(facts.line)}` : 'the claim'}: ${names(facts.fields)}`,
  'lines written': ({ facts }) => `wrote ${list(facts.lines)}`,
  'line removed': ({ facts }) => `took line ${str(facts.line)} off`,
  paired: ({ facts }) => `paired ${list(facts.lines)} with charges or receipts`,
  unpaired: ({ facts }) => `took the ${str(facts.what)} off ${list(facts.lines)}`,
  submitted: ({ facts }) => `submitted version ${str(facts.version)}`,
  withdrawn: fixed('withdrew it'),
  'called back': fixed('took it back to change it'),
  'brought back': fixed('took it up again'),
  approved: ({ facts, words }) =>
    `approved it${facts.state === 'in review' ? '; it went to review' : ''}${words?.comment ? `: ${str(words.comment)}` : ''}`,
  'decision taken back': fixed('took the approval back'),
  'route went on': WENT_ON,
  'line declined': (event) => `declined line ${str(event.facts.line)}${withReason(event)}`,
  'line restored': ({ facts }) => `took line ${str(facts.line)} as it was`,
  'code agreed': ({ facts }) => `agreed to ${names(facts.codes)}`,
  'code not agreed': (event) => `did not agree to ${names(event.facts.codes)}${withReason(event)}`,
  returned: reasoned('returned it'),
  declined: reasoned('declined it'),
  'sent back to the approver': reasoned('sent it back to who approved it last'),
  corrected: sayCorrection,
  marked: sayMark,
  asked: ({ facts, words }) => `asked about line ${str(facts.line)}: ${str(words?.text)}`,
  'questions sent': ({ facts }) => `sent ${str(facts.count)} ${facts.count === 1 ? 'question' : 'questions'}`,
  'question taken back': ({ facts }) => `took back a question about line ${str(facts.line)}`,
  'file added to an answer': ({ facts }) => `added a file to the answer at line ${str(facts.line)}`,
  answered: ({ facts, words }) => `answered the question at line ${str(facts.line)}: ${str(words?.text)}`,
  'drawn for a full look': ({ facts }) =>
    `chose it with others to clear; it was drawn for a full look (run ${str(facts.run)}, seed ${str(facts.seed).slice(0, 8)}…)`,
  held: (event) => `put it on hold until ${str(event.facts.until)}${withReason(event)}`,
  released: fixed('took it off hold'),
  cleared: ({ facts }) => `cleared it for posting${facts.run ? `, with others (run ${str(facts.run)})` : ''}`,
  reopened: fixed('took it back into review'),
  posted: ({ facts }) => `posted it as ${str(facts.journal)} on ${str(facts.date)}`,
  reversed: (event) => `reversed ${str(event.facts.reverses)} by ${str(event.facts.journal)}${withReason(event)}`,
  paid: ({ facts }) => `paid it in full by ${str(facts.journal)} on ${str(facts.date)}`,
  'part paid': ({ facts }) => `paid part of it by ${str(facts.journal)} on ${str(facts.date)}`,
  'payment rejected': reasoned('had its payment refused by the bank'),
};

/** What is said of each kind of event a plan's acts leave. */
export const SAYS_OF_PLANS: Sayings = {
  drafted: fixed('began the plan'),
  edited: ({ facts }) => `changed the plan: ${names(facts.fields)}`,
  submitted: fixed('submitted it'),
  withdrawn: fixed('withdrew it'),
  'called back': fixed('took it back to change it'),
  'brought back': fixed('took it up again'),
  approved: ({ words }) => `approved it${words?.comment ? `: ${str(words.comment)}` : ''}`,
  'decision taken back': fixed('took the approval back'),
  'route went on': WENT_ON,
  declined: reasoned('declined it'),
  booked: fixed('changed its bookings'),
  claimed: ({ facts }) => `began claim ${str(facts.claim)} from it`,
  'used up': fixed('ended it: its claim is posted'),
  'to be claimed again': fixed('took it up again: the posting of its claim was reversed'),
  lapsed: fixed('ended it: no claim came of it in time'),
};

/** What is said of each kind of event an advance's acts leave. */
export const SAYS_OF_ADVANCES: Sayings = {
  begun: fixed('wrote it down'),
  edited: ({ facts }) => `changed it: ${names(facts.fields)}`,
  requested: fixed('asked for it'),
  withdrawn: fixed('withdrew it'),
  'called back': fixed('took it back to change it'),
  'brought back': fixed('took it up again'),
  approved: ({ words }) => `approved it${words?.comment ? `: ${str(words.comment)}` : ''}`,
  'decision taken back': fixed('took the approval back'),
  'route went on': WENT_ON,
  declined: reasoned('declined it'),
  granted: (event) =>
    `granted ${str(event.facts.amount)} ${str(event.facts.currency)}, to be accounted for by ${str(event.facts.dueBy)}${withReason(event)}`,
  'given more time': (event) => `gave time until ${str(event.facts.dueBy)}${withReason(event)}`,
  'paid out': ({ facts }) => `recorded its payout of ${str(facts.date)}, posted as ${str(facts.journal)}`,
  'proof added': ({ facts }) => `added the proof of ${facts.of === 'return' ? 'money given back' : 'the payout'}`,
  'given back': ({ facts }) =>
    `recorded ${str(facts.amount)} ${str(facts.currency)} given back on ${str(facts.date)}, posted as ${str(facts.journal)}`,
  settled: fixed('settled it: nothing of it is open'),
  reopened: fixed('opened it again: something of it is to be accounted for'),
};

/** What happened, in a short sentence without its subject; a kind without words of its own says its name. */
export const sayEvent = ({ kind, facts, words }: Words & { kind: string }, says: Sayings = SAYS): string =>
  says[kind]?.({ facts, words }) ?? kind;

/** A moment as date and time in the reader's place, the day as days are written everywhere. */
export const sayMoment = (iso: string): string => format(parseISO(iso), 'yyyy-MM-dd, HH:mm');
