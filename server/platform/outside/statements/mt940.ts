import { minorUnits } from '../../../../core/numbers/minorUnits.ts';
import { isIsoDate } from '../../../../core/numbers/isoDate.ts';
import { readLocalAmount } from '../../../../core/numbers/readLocalAmount.ts';
import type { Statement, StatementEntry } from '../../../../core/evidence/statements/statement.types.ts';
import { StatementFault } from './statementFault.ts';
import type { ReadFile, ReadStatement } from './readStatements.types.ts';
import { merchantName } from './merchantName.ts';

interface Field {
  tag: string;
  content: string;
}

/** Reads SWIFT MT940 (customer statement message; fields 20, 25, 28C, 60a, 61, 86, 62a), one or several messages. */
export function readMt940(text: string): ReadFile {
  const messages = messagesOf(fieldsOf(text));
  if (messages.length === 0) return { ok: false, says: 'It holds no statement.' };
  return { ok: true, format: 'MT940', statements: messages.map(readOne) };
}

/** Fields with the lines that continue them. Block marks of the envelope and the closing hyphen are left out. */
function fieldsOf(text: string): Field[] {
  const fields: Field[] = [];
  for (const line of text
    .replace(/\{[1-3]:[^{}]*(?:\{[^{}]*\}[^{}]*)*\}/g, '')
    .replace(/\{4:/g, '')
    .split(/\r?\n/)) {
    if (/^-\}?$/.test(line.trim())) continue;
    const match = /^:(\d{2}[A-Z]?):(.*)$/.exec(line.trimEnd());
    if (match) fields.push({ tag: match[1]!, content: match[2]! });
    else if (fields.length > 0 && line.trim() !== '') fields.at(-1)!.content += `\n${line.trimEnd()}`;
  }
  return fields;
}

function messagesOf(fields: readonly Field[]): Field[][] {
  const messages: Field[][] = [];
  for (const field of fields) {
    if (field.tag === '20') messages.push([]);
    messages.at(-1)?.push(field);
  }
  return messages;
}

function readOne(fields: Field[]): ReadStatement {
  const account = accountOf(fields);
  try {
    return { ok: true, statement: statementOf(fields, account) };
  } catch (error) {
    if (error instanceof StatementFault) return { ok: false, account, says: error.message };
    throw error;
  }
}

/** The account of field 25, after the bank's identification; a currency that follows the number is not part of it. */
function accountOf(fields: readonly Field[]): string | null {
  const field = fields.find((f) => /^25P?$/.test(f.tag))?.content ?? '';
  const account = field.split('\n')[0]!.split('/').at(-1)!.replace(/ /g, '');
  const currency = /[A-Z]{3}$/.exec(account)?.[0] ?? '';
  return (minorUnits(currency) === null ? account : account.slice(0, -3)) || null;
}

function statementOf(fields: Field[], account: string | null): Statement {
  if (!account) throw new StatementFault('The statement names no account (field 25).');
  const opening = balanceOf(
    fields.find((f) => /^60[FM]$/.test(f.tag)),
    'opening balance (field 60F)',
  );
  const closing = balanceOf(
    fields.find((f) => /^62[FM]$/.test(f.tag)),
    'closing balance (field 62F)',
  );
  const entries: StatementEntry[] = [];
  fields.forEach((field, i) => {
    if (field.tag !== '61') return;
    const next = fields[i + 1];
    entries.push(entryOf(field.content, next?.tag === '86' ? next.content : '', opening.currency, entries.length + 1));
  });
  return {
    id: fields.find((f) => f.tag === '20')?.content.trim() || null,
    account,
    currency: opening.currency,
    from: opening.date,
    to: closing.date,
    opening: opening.amount,
    closing: closing.amount,
    entries,
    stated: { count: null, sum: null },
  };
}

function balanceOf(field: Field | undefined, what: string): { amount: string; currency: string; date: string } {
  const match = /^([CD])(\d{6})([A-Z]{3})([\d,]+)/.exec(field?.content ?? '');
  if (!match) throw new StatementFault(`The ${what} is missing, so the statement is not whole.`);
  const [, side, day, currency = '', figure = ''] = match;
  if (minorUnits(currency) === null)
    throw new StatementFault(`The currency "${currency}" of the ${what} is none of ISO 4217.`);
  const amount = money(figure, currency, what);
  return { amount: side === 'D' ? minus(amount) : amount, currency, date: date(day!, what) };
}

const LINE =
  /^(\d{6})(\d{4})?(R?[CD]|[CD]R)([A-Z])?([\d,]+)([A-Z][A-Z0-9]{3})([^\n/]*(?:\/(?!\/)[^\n/]*)*)(?:\/\/([^\n]*))?(?:\n([\s\S]*))?$/;

function entryOf(content: string, information: string, currency: string, number: number): StatementEntry {
  const where = `entry ${number} (field 61)`;
  const match = LINE.exec(content);
  if (!match)
    throw new StatementFault(`In ${where}: "${content.split('\n')[0]!.slice(0, 40)}" is not a statement line.`);
  const [, valueDay, bookingDay, mark, , figure, , customer = '', bank = '', supplement = ''] = match;
  const purchasedOn = date(valueDay!, where);
  const bookedOn = bookingDay ? date(yearOf(purchasedOn, bookingDay) + bookingDay, where) : purchasedOn;
  const amount = money(figure!, currency, where);
  const spent = mark === 'D' || mark === 'RC';
  const info = informationOf(information, supplement);
  return {
    reference: bank.trim() || (customer.trim() !== 'NONREF' ? customer.trim() : '') || null,
    bookedOn,
    purchasedOn,
    settled: spent ? amount : minus(amount),
    charged: info.charged && {
      amount: spent ? info.charged.amount : minus(info.charged.amount),
      currency: info.charged.currency,
    },
    merchant: merchantName(info.name, supplement.replace(/\/OCMT\/.*$/, '')),
    country: null,
    categoryCode: null,
  };
}

/** The booking day has no year: it is that of the value date, or the one beside it over the turn of the year. */
function yearOf(valueDate: string, bookingDay: string): string {
  const year = Number(valueDate.slice(2, 4));
  const months = Number(bookingDay.slice(0, 2)) - Number(valueDate.slice(5, 7));
  const shifted = months <= -6 ? year + 1 : months >= 6 ? year - 1 : year;
  return String(shifted).padStart(2, '0');
}

/** A subfield of field 86 that is this long goes on in the next without a space. */
const FULL_SUBFIELD = 27;

/**
 * Name and original amount from field 86 and subfield 9 of field 61: the subfields ?32 and ?33, the code word NAME, or what
 * is said in ?20 to ?29 or the first line; the code word OCMT.
 */
function informationOf(
  content: string,
  supplement: string,
): { name: string; charged: { amount: string; currency: string } | null } {
  const joined = content.replace(/\n/g, '');
  const original = /\/OCMT\/([A-Z]{3})([\d,]+)(?:\/|$)/.exec(`${joined}\n${supplement}`.replace(/\n/g, '/'));
  const subfields = subfieldsOf(joined);
  const [first = '', second = ''] = subfields.filter((m) => m[1] === '32' || m[1] === '33').map((m) => m[2]!);
  const codeWord = /\/NAME\/([^/]+)/.exec(joined)?.[1]?.trim();
  const purpose = subfields
    .filter((m) => /^2\d$/.test(m[1]!))
    .map((m) => m[2]!)
    .reduce(continued, '');
  const named = [first, second].reduce(continued, '').replace(/ +/g, ' ').trim();
  const said = content
    .split('\n')[0]!
    .replace(/\/OCMT\/.*$/, '')
    .trim();
  const name = named || codeWord || remitted(purpose) || said;
  if (!original || minorUnits(original[1]!) === null || !/[1-9]/.test(original[2]!)) return { name, charged: null };
  return {
    name,
    charged: { amount: money(original[2]!, original[1]!, 'the original amount'), currency: original[1]! },
  };
}

const continued = (said: string, part: string, i: number, parts: string[]): string =>
  `${said}${i > 0 && part && parts[i - 1]!.length < FULL_SUBFIELD ? ' ' : ''}${part}`;

/** The subfields of field 86, "?32" or, as some banks separate them, ">32". */
function subfieldsOf(joined: string): RegExpMatchArray[] {
  const sign = /^\d{0,3}>\d{2}/.test(joined) ? '>' : '?';
  return [...joined.matchAll(new RegExp(`\\${sign}(\\d{2})([^${sign}]*)`, 'g'))];
}

/** Code words of SEPA within a purpose; what was remitted follows SVWZ+, the others are references (common practice). */
const CODE_WORDS = /(?:EREF|KREF|MREF|CRED|DEBT|SVWZ|ABWA|ABWE|PURP|COAM|OAMT|IBAN|BIC)\+/;
function remitted(purpose: string): string {
  if (!CODE_WORDS.test(purpose)) return purpose.trim();
  const parts = purpose.split(new RegExp(`(?=${CODE_WORDS.source})`));
  const said = parts.find((part) => part.startsWith('SVWZ+')) ?? parts.find((part) => !CODE_WORDS.test(part));
  return (said ?? '').replace('SVWZ+', '').trim();
}

/** MT940 amounts have a decimal comma that also stands when no decimals follow: "12,". */
function money(figure: string, currency: string, where: string): string {
  const read = readLocalAmount(figure.replace(/,$/, ''), currency, ',');
  if (!read.ok) throw new StatementFault(`In ${where}: ${read.problem}.`);
  return read.amount;
}

const minus = (amount: string): string =>
  /^0(\.0+)?$/.test(amount) ? amount : amount.startsWith('-') ? amount.slice(1) : `-${amount}`;

function date(day: string, where: string): string {
  const iso = `20${day.slice(0, 2)}-${day.slice(2, 4)}-${day.slice(4, 6)}`;
  if (!isIsoDate(iso)) throw new StatementFault(`In ${where} the date ${iso} does not exist.`);
  return iso;
}
