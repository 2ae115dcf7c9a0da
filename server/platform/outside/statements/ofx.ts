import { toMinor } from '../../../../core/numbers/amount.ts';
import { minorUnits } from '../../../../core/numbers/minorUnits.ts';
import { isIsoDate } from '../../../../core/numbers/isoDate.ts';
import { readLocalAmount } from '../../../../core/numbers/readLocalAmount.ts';
import type { Statement, StatementEntry } from '../../../../core/evidence/statements/statement.types.ts';
import { StatementFault } from './statementFault.ts';
import type { ReadFile, ReadStatement } from './readStatements.types.ts';
import { merchantName } from './merchantName.ts';

interface Node {
  tag: string;
  value: string;
  children: Node[];
}

/** Reads OFX (Open Financial Exchange), the SGML of 1.x and the XML of 2.x: card and bank statements. */
export function readOfx(text: string): ReadFile {
  const start = text.search(/<OFX>/i);
  if (start < 0 || !/<\/OFX>\s*$/i.test(text))
    return { ok: false, says: 'The file breaks off in the middle, so nothing of it was taken. Fetch it again.' };
  const root = treeOf(withoutCdata(text.slice(start)));
  const statements = [...all(root, 'CCSTMTRS'), ...all(root, 'STMTRS')];
  if (statements.length === 0) return { ok: false, says: 'It holds no statement.' };
  return { ok: true, format: 'OFX', statements: statements.map(readOne) };
}

/** SGML elements have no end tag and end at the next tag; aggregates have one. XML has both and reads the same way. */
function treeOf(text: string): Node {
  const root: Node = { tag: '', value: '', children: [] };
  const open = [root];
  for (const [, closing, tag = '', value = ''] of text.matchAll(/<(\/?)([\w.]+)(?:[^\w.<>][^<>]*)?>([^<]*)/g)) {
    if (closing) {
      const at = open.findLastIndex((node) => node.tag === tag.toUpperCase());
      if (at > 0) open.length = at;
      continue;
    }
    const node: Node = { tag: tag.toUpperCase(), value: unescape(value.trim()), children: [] };
    open.at(-1)!.children.push(node);
    if (node.value === '') open.push(node);
  }
  return root;
}

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', nbsp: ' ', quot: '"', apos: "'" };
const unescape = (text: string): string =>
  text.replace(/&(?:#(\d{1,7})|#x([\da-f]{1,6})|(\w+));/gi, (whole, decimal?: string, hex?: string, name?: string) => {
    const code = decimal ? Number(decimal) : hex ? parseInt(hex, 16) : null;
    if (code !== null) return code > 31 && code <= 0x10ffff ? String.fromCodePoint(code) : ' ';
    return ENTITIES[name!] ?? whole;
  });
/** What is in a CDATA section as it would be written outside of one. */
const withoutCdata = (text: string): string =>
  text.replace(/<!\[CDATA\[([\s\S]*?)\]\]>/g, (_, inside: string) =>
    inside.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;'),
  );

const all = (node: Node, tag: string): Node[] => node.children.flatMap((c) => (c.tag === tag ? [c] : all(c, tag)));
const first = (node: Node | undefined, tag: string): Node | undefined => node && all(node, tag)[0];
const text = (node: Node | undefined, tag: string): string => first(node, tag)?.value ?? '';

function readOne(node: Node): ReadStatement {
  const account = text(first(node, 'CCACCTFROM') ?? first(node, 'BANKACCTFROM'), 'ACCTID') || null;
  try {
    return { ok: true, statement: statementOf(node, account) };
  } catch (error) {
    if (error instanceof StatementFault) return { ok: false, account, says: error.message };
    throw error;
  }
}

/** OFX states the balance at the end and none at the beginning, so only its entries can be taken at their word. */
function statementOf(node: Node, account: string | null): Statement {
  if (!account) throw new StatementFault('The statement names no account.');
  const currency = text(node, 'CURDEF');
  if (minorUnits(currency) === null)
    throw new StatementFault(`The statement's currency "${currency}" is none of ISO 4217.`);
  const list = first(node, 'BANKTRANLIST');
  const balance = text(first(node, 'LEDGERBAL'), 'BALAMT');
  const [from, to] = [text(list, 'DTSTART'), text(list, 'DTEND')];
  return {
    id: null,
    account,
    currency,
    from: from ? date(from, 'the first day') : null,
    to: to ? date(to, 'the last day') : null,
    opening: null,
    closing: balance ? money(balance, currency, 'the balance') : null,
    // an entry of nothing tells something, and moves no money
    entries: (list ? all(list, 'STMTTRN') : [])
      .map((entry, i) => entryOf(entry, currency, `entry ${i + 1}`))
      .filter((entry) => toMinor(entry.settled, currency) !== 0n),
    stated: { count: null, sum: null },
  };
}

/** TRNAMT is in the account's currency, unless the entry has a CURRENCY block: then in the one it names. */
function entryOf(entry: Node, currency: string, where: string): StatementEntry {
  const stated = text(
    entry.children.find((c) => c.tag === 'CURRENCY'),
    'CURSYM',
  );
  if (stated && stated !== currency)
    throw new StatementFault(`In ${where} the amount is in ${stated}, the account in ${currency}.`);
  const settled = negated(money(text(entry, 'TRNAMT'), currency, where));
  const bought = text(entry, 'DTUSER');
  const code = text(entry, 'SIC');
  return {
    reference: text(entry, 'FITID') || null,
    bookedOn: date(text(entry, 'DTPOSTED'), where),
    purchasedOn: bought ? date(bought, where) : null,
    settled,
    charged: originalOf(entry, settled, currency),
    merchant: merchantName(text(entry, 'NAME'), text(entry, 'MEMO')),
    country: null,
    categoryCode: /^\d{4}$/.test(code) ? code : null,
  };
}

/**
 * OFX gives the rate and not the original amount. It is taken only where settled / rate, rounded to the minor unit and
 * converted back, gives the settled amount again, and the rate has digits enough to tell one minor unit from the next.
 */
function originalOf(entry: Node, settled: string, currency: string): StatementEntry['charged'] {
  const origin = first(entry, 'ORIGCURRENCY');
  const symbol = text(origin, 'CURSYM');
  const rate = /^(\d{1,9})(?:\.(\d{1,12}))?$/.exec(text(origin, 'CURRATE'));
  const decimals = minorUnits(symbol);
  if (!rate || decimals === null) return null;
  const top = BigInt(settled.replace('.', '')) * 10n ** BigInt((rate[2] ?? '').length + decimals);
  const bottom = BigInt(rate[1]! + (rate[2] ?? '')) * 10n ** BigInt(minorUnits(currency)!);
  if (bottom === 0n) return null;
  const minor = nearest(top, bottom);
  const back = nearest(minor * bottom, 10n ** BigInt((rate[2] ?? '').length + decimals));
  const digits = BigInt(rate[1]! + (rate[2] ?? ''));
  if (back !== BigInt(settled.replace('.', '')) || (minor < 0n ? -minor : minor) >= digits) return null;
  const written = readLocalAmount(scaled(minor, decimals), symbol, '.');
  return written.ok ? { amount: written.amount, currency: symbol } : null;
}

function nearest(top: bigint, bottom: bigint): bigint {
  const negative = top < 0n;
  const whole = ((negative ? -top : top) * 2n + bottom) / (2n * bottom);
  return negative ? -whole : whole;
}

function scaled(minor: bigint, decimals: number): string {
  const digits = String(minor < 0n ? -minor : minor).padStart(decimals + 1, '0');
  const plain = decimals ? `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}` : digits;
  return minor < 0n ? `-${plain}` : plain;
}

function money(figure: string, currency: string, where: string): string {
  const mark = /,\d{1,2}$/.test(figure) ? ',' : '.';
  const read = readLocalAmount(figure, currency, mark);
  if (!read.ok) throw new StatementFault(`In ${where}: ${read.problem}.`);
  return read.amount;
}

const negated = (amount: string): string =>
  /^0(\.0+)?$/.test(amount) ? amount : amount.startsWith('-') ? amount.slice(1) : `-${amount}`;

/** OFX dates are YYYYMMDD with an optional time and zone. */
function date(text: string, where: string): string {
  const iso = `${text.slice(0, 4)}-${text.slice(4, 6)}-${text.slice(6, 8)}`;
  if (!isIsoDate(iso)) throw new StatementFault(`In ${where} the date "${text.slice(0, 14)}" does not exist.`);
  return iso;
}
