import { groupDigits } from '../numbers/groupDigits.ts';
import type { HearsAs } from '../workflow/concerned.ts';

/** Something that happened to a record, as one person hears of it. Amounts as decimal strings of the currency beside them. */
export interface Message {
  record: string;
  number: string;
  event: string;
  /** `reviewer`: they did something on the record before, such as asking a question. */
  as: HearsAs | 'reviewer';
  /** Whose record it is, and who did it; null: the system. */
  whose: string;
  by: string | null;
  purpose: string;
  amount: string | null;
  currency: string;
  /** Whose substitute they are here. */
  insteadOf: string | null;
  /** Whether a decision it asks for still waits for them; true of what asks for none. */
  waits: boolean;
  facts: Readonly<Record<string, unknown>>;
}
/** What it says: what it is about, how much, and what to do; the subject is how a list or a mail names it. */
export interface SaidMessage {
  subject: string;
  says: string;
  next: string | null;
}

const str = (value: unknown): string => (typeof value === 'string' ? value : '');

/**
 * The words of a message, the same in the application and by mail. Nothing of receipts or banks is in them, and no reason that
 * somebody gave, which is read where the record is. A kind of event without words of its own says its name.
 */
export function sayMessage(message: Message): SaidMessage {
  const { record, number, purpose, amount, currency, whose, insteadOf, as } = message;
  const words = WORDS[as][message.event] ?? (() => [`${number}: ${message.event}`, null]);
  const [subject, next] = message.waits ? words(message) : [`${number} no longer waits for you`, null];
  const about = as === 'maker' ? `Your ${record} ${number}` : `The ${record} ${number} of ${whose}`;
  const sum = amount === null ? '' : `, ${groupDigits(amount)} ${currency}${record === 'claim' ? ' to pay' : ''}`;
  const stead = insteadOf === null ? '' : ` You stand in for ${insteadOf}.`;
  return { subject, says: `${about}: ${purpose}${sum}.${stead}`, next };
}

type Words = (message: Message) => [subject: string, next: string | null];
const done =
  (verb: string, next: string | null): Words =>
  (m) => [`${m.by ?? 'Ebbet'} ${verb} ${m.number}`, next];
const READ = 'Open it to read why.';
const DECIDE = 'Open it to approve, decline or return it.';
/** What finance changed since it was handed in, which the claimant may want to look at. */
const sayCorrected = (lines: unknown): string =>
  Array.isArray(lines) && lines.length > 0
    ? `Finance changed ${lines.length === 1 ? 'line' : 'lines'} ${lines.join(', ')}; open it to see what, and why. `
    : '';
const dueBy = ({ facts }: Message): string => `It is to be accounted for by ${str(facts.dueBy)}.`;

const asked: Words = (m) => [`${m.number} waits for your decision`, DECIDE];
const DECIDER: Record<string, Words> = {
  submitted: asked,
  requested: asked,
  approved: asked,
  'sent back to the approver': (m) => [`${m.by} asks you to look at ${m.number} again`, DECIDE],
  'questions sent': done('asks you something about', 'Open it and answer at its lines.'),
  'route went on': asked,
  corrected: (m) => [`${m.number} is charged to a code of yours`, 'Say whether it may be charged there.'],
};

const AFTER_APPROVAL: Record<string, string> = {
  'in review claim': 'Finance looks at it next.',
  'in review advance': 'A reviewer grants it next.',
  approved: 'Begin its claim from it once the money is spent.',
};
const MAKER: Record<string, Words> = {
  submitted: done('submitted', null),
  approved: (m) => {
    const state = str(m.facts.state);
    const next = AFTER_APPROVAL[state] ?? AFTER_APPROVAL[`${state} ${m.record}`] ?? 'Others decide about it yet.';
    return [`${m.by} approved ${m.number}`, next];
  },
  returned: done('returned', 'Open it to read why, put it right and submit it again.'),
  'questions sent': done('asks something about', 'Open it and answer at its lines; it stays in review meanwhile.'),
  declined: done('declined', READ),
  'sent back to the approver': (m) => [
    `${m.by} asked who approved ${m.number} to look again`,
    'They decide about it once more.',
  ],
  cleared: (m) => [`${m.number} is cleared`, `${sayCorrected(m.facts.corrected)}It is posted and paid next.`],
  posted: (m) => [`${m.number} is posted`, 'It is paid next.'],
  reversed: (m) => [`The posting of ${m.number} was reversed`, 'Finance looks at it again.'],
  paid: (m) => [`${m.number} is paid`, null],
  'part paid': (m) => [`Part of ${m.number} is paid`, null],
  'payment rejected': (m) => [
    `The payment of ${m.number} was refused`,
    'Finance pays it again; ask them whether they need anything.',
  ],
  lapsed: (m) => [`${m.number} ended, since no claim came of it in time`, null],
  granted: (m) => [
    `${m.by} granted ${groupDigits(str(m.facts.amount))} ${str(m.facts.currency)} of ${m.number}`,
    `It is paid out next. ${dueBy(m)}`,
  ],
  'given more time': (m) => [`${m.by} gave ${m.number} more time`, dueBy(m)],
  'paid out': (m) => [`${m.number} is paid out`, dueBy(m)],
  'given back': (m) => [`What you gave back of ${m.number} is recorded`, null],
  settled: (m) => [`${m.number} is settled`, 'Nothing of it is open.'],
  reopened: (m) => [`Something of ${m.number} is open again`, dueBy(m)],
  reminded: (m) => [
    m.facts.overdue ? `${m.number} is overdue` : `${m.number} is to be accounted for soon`,
    `${groupDigits(str(m.facts.open))} ${m.currency} of it are open. ${m.facts.overdue ? 'It was' : 'It is'} to be accounted for by ${str(m.facts.dueBy)}: claim what you spent and give the rest back.`,
  ],
};

const REVIEWER: Record<string, Words> = {
  submitted: (m) => [`${m.number} came back`, 'What you asked is answered at its lines.'],
  answered: done('answered a question about', 'The answer stands at its line.'),
  'code agreed': done('agreed to the codes of', 'It can be cleared as far as those go.'),
  'code not agreed': done('did not agree to the codes of', READ),
};

const WORDS: Record<Message['as'], Record<string, Words>> = { maker: MAKER, decider: DECIDER, reviewer: REVIEWER };
