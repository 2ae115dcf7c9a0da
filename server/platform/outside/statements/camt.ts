import { XMLParser } from 'fast-xml-parser';
import { fromMinor, toMinor } from '../../../../core/numbers/amount.ts';
import { trimZeros } from '../../../../core/numbers/decimal.ts';
import { minorUnits } from '../../../../core/numbers/minorUnits.ts';
import { isIsoDate } from '../../../../core/numbers/isoDate.ts';
import { readLocalAmount } from '../../../../core/numbers/readLocalAmount.ts';
import type { Statement, StatementEntry } from '../../../../core/evidence/statements/statement.types.ts';
import { StatementFault } from './statementFault.ts';
import type { ReadFile, ReadStatement } from './readStatements.types.ts';
import { merchantName } from './merchantName.ts';

type Node = Record<string, unknown>;

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: true,
  // names hold letters by their numbers too
  htmlEntities: true,
});

/** The messages of ISO 20022 by which a bank tells what was booked: the report of a day, the statement, and the notice of entries. */
const MESSAGES = [
  { format: 'camt.053', message: 'BkToCstmrStmt', part: 'Stmt' },
  { format: 'camt.052', message: 'BkToCstmrAcctRpt', part: 'Rpt' },
  { format: 'camt.054', message: 'BkToCstmrDbtCdtNtfctn', part: 'Ntfctn' },
] as const;

/** Reads ISO 20022 camt.053, camt.052 and camt.054, any version: what the versions differ in is read either way. */
export function readCamt(xml: string): ReadFile {
  let tree: Node;
  try {
    tree = parser.parse(xml, true) as Node;
  } catch {
    return { ok: false, says: 'The file breaks off in the middle, so nothing of it was taken. Fetch it again.' };
  }
  const document = child(tree, 'Document') ?? tree;
  const found = MESSAGES.find(({ message }) => child(document, message));
  const statements = found ? children(child(document, found.message), found.part) : [];
  if (!found || statements.length === 0) return { ok: false, says: 'It holds no statement.' };
  return { ok: true, format: found.format, statements: statements.map(readOne) };
}

function readOne(node: Node): ReadStatement {
  const account = accountOf(node);
  try {
    return { ok: true, statement: statementOf(node, account) };
  } catch (error) {
    if (error instanceof StatementFault) return { ok: false, account, says: error.message };
    throw error;
  }
}

function accountOf(node: Node): string | null {
  const id = child(child(node, 'Acct'), 'Id');
  return text(child(id, 'Othr'), 'Id') || text(id, 'IBAN') || null;
}

function statementOf(node: Node, account: string | null): Statement {
  if (!account) throw new StatementFault('The statement names no account.');
  const balances = children(node, 'Bal');
  const [opening, closing] = endsOf(balances);
  const currency =
    text(child(node, 'Acct'), 'Ccy')
    || attribute(child(opening ?? closing, 'Amt'), 'Ccy')
    || attribute(child(child(node, 'Ntry'), 'Amt'), 'Ccy');
  if (minorUnits(currency) === null)
    throw new StatementFault(`The statement's currency "${currency}" is none of ISO 4217.`);
  const entries = children(node, 'Ntry').map((entry, i) => ({ entry, number: i + 1 }));
  const booked = entries.filter(({ entry }) => isBooked(entry));
  const period = child(node, 'FrToDt');
  const summary = child(child(node, 'TxsSummry'), 'TtlNtries');
  const count = text(summary, 'NbOfNtries');
  const sum = text(summary, 'Sum');
  return {
    id: text(node, 'Id') || null,
    account,
    currency,
    from: dayOf(text(period, 'FrDtTm') || dateOf(opening, 'Dt'), 'the first day'),
    to: dayOf(text(period, 'ToDtTm') || dateOf(closing, 'Dt'), 'the last day'),
    opening: opening ? signed(opening, currency, 'the opening balance') : null,
    closing: closing ? signed(closing, currency, 'the closing balance') : null,
    entries: booked.flatMap(({ entry, number }) => entriesOf(entry, number, currency)),
    counted: [entries, booked].map((some) => countedOf(some, currency)),
    pending: entries.length - booked.length,
    stated: {
      count: /^\d{1,9}$/.test(count) ? Number(count) : null,
      sum: sum ? amount(sum, currency, 'the sum of its entries') : null,
    },
  };
}

/** The balances at both ends; where a statement is one page of several, its interim balances stand for those it has not. */
function endsOf(balances: readonly Node[]): [opening: Node | undefined, closing: Node | undefined] {
  const coded = (...codes: string[]) =>
    balances.filter((b) => codes.includes(text(child(child(b, 'Tp'), 'CdOrPrtry'), 'Cd')));
  const [[opening], [closing], interim] = [coded('OPBD', 'PRCD'), coded('CLBD'), coded('ITBD')];
  const both = interim.length > 1;
  return [
    opening ?? (both || closing ? interim[0] : undefined),
    closing ?? (both || opening ? interim.at(-1) : undefined),
  ];
}

interface Numbered {
  entry: Node;
  number: number;
}

function isBooked(entry: Node): boolean {
  const status = text(child(entry, 'Sts'), 'Cd') || text(entry, 'Sts');
  return status === '' || status === 'BOOK';
}

/** What TtlNtries counts: entries, each batch once, and their amounts without signs. */
function countedOf(some: readonly Numbered[], currency: string): { count: number; sum: string } {
  const minor = some.map(({ entry, number }) =>
    toMinor(amount(value(child(entry, 'Amt')), currency, `entry ${number}`), currency),
  );
  return {
    count: some.length,
    sum: fromMinor(
      minor.reduce((a, m) => a + m, 0n),
      currency,
    ),
  };
}

/** One booked entry; a batch whose transactions all tell their own amount on the account is as many. */
function entriesOf(entry: Node, number: number, currency: string): StatementEntry[] {
  const where = `entry ${number}`;
  const bookedOn = dateOf(entry, 'BookgDt') ?? dateOf(entry, 'ValDt');
  if (!bookedOn || !isIsoDate(bookedOn))
    throw new StatementFault(`In ${where} the booking date "${bookedOn ?? ''}" does not exist.`);
  const details = children(entry, 'NtryDtls').flatMap((d) => children(d, 'TxDtls'));
  const several = details.length > 1 && details.every((d) => attribute(ownAmount(d, currency), 'Ccy') === currency);
  // several whose amounts are not told are one entry, of none of their merchants
  const transactions = several ? details : [details.length > 1 ? {} : (details[0] ?? {})];
  const fee = several ? chargedBeside(entry, transactions, currency, where) : null;
  const own = transactions.map((transaction) => {
    const money = several ? ownAmount(transaction, currency) : child(entry, 'Amt');
    if (attribute(money, 'Ccy') !== currency)
      throw new StatementFault(
        `In ${where} the amount is in ${attribute(money, 'Ccy') || 'no currency'}, the account in ${currency}.`,
      );
    const side = several ? text(transaction, 'CdtDbtInd') || text(entry, 'CdtDbtInd') : text(entry, 'CdtDbtInd');
    const spent = side === 'DBIT';
    if (!spent && side !== 'CRDT')
      throw new StatementFault(`In ${where} it is not said whether it was spent or came back.`);
    return {
      ...factsOf(entry, transaction, spent, several, where),
      bookedOn,
      settled: minus(amount(value(money), currency, where), !spent),
    };
  });
  return fee === null ? own : [...own, { ...feeOf(entry, where), bookedOn, settled: fee }];
}

/** What a bank takes for a batch, as an entry of its own. */
const feeOf = (entry: Node, where: string): Omit<StatementEntry, 'bookedOn' | 'settled'> => ({
  ...factsOf(entry, {}, true, true, where),
  merchant: 'Bank charges',
});

/**
 * A batch is its transactions, by their own sides, and what the bank says that it took for it besides: that amount, spent, or
 * null. Anything else is refused.
 */
function chargedBeside(entry: Node, transactions: readonly Node[], currency: string, where: string): string | null {
  const minorOf = (node: Node, money: Node | undefined) => {
    const minor = toMinor(amount(value(money), currency, where), currency);
    return (text(node, 'CdtDbtInd') || text(entry, 'CdtDbtInd')) === 'DBIT' ? minor : -minor;
  };
  const sum = transactions.reduce((a, t) => a + minorOf(t, ownAmount(t, currency)), 0n);
  const whole = minorOf(entry, child(entry, 'Amt'));
  const fees = feesIn(entry, currency, where);
  if (fees !== 0n && sum + fees === whole) return fromMinor(fees, currency);
  if (sum !== whole)
    throw new StatementFault(
      `In ${where} the transactions come to ${fromMinor(sum, currency)} ${currency}, the entry is of ${fromMinor(whole, currency)}.`,
    );
  return null;
}

/** Charges that are within the amount of an entry, in minor units; what came back of them is below zero. */
function feesIn(entry: Node, currency: string, where: string): bigint {
  const charges = child(entry, 'Chrgs');
  const within = children(charges, 'Rcrd').filter((r) => text(r, 'ChrgInclInd') === 'true');
  const minorOf = (money: Node | undefined) =>
    attribute(money, 'Ccy') === currency ? toMinor(amount(value(money), currency, where), currency) : 0n;
  if (within.length === 0) return minorOf(child(charges, 'TtlChrgsAndTaxAmt'));
  return within.reduce((a, r) => a + (text(r, 'CdtDbtInd') === 'CRDT' ? -1n : 1n) * minorOf(child(r, 'Amt')), 0n);
}

/** What a transaction of a batch came to on the account: its amount, or the instructed one where that is in its currency. */
function ownAmount(transaction: Node, currency: string): Node | undefined {
  const details = child(transaction, 'AmtDtls');
  const stated = child(transaction, 'Amt') ?? child(child(details, 'TxAmt'), 'Amt');
  const instructed = child(child(details, 'InstdAmt'), 'Amt');
  return stated ?? (attribute(instructed, 'Ccy') === currency ? instructed : undefined);
}

function factsOf(
  entry: Node,
  transaction: Node,
  spent: boolean,
  several: boolean,
  where: string,
): Omit<StatementEntry, 'bookedOn' | 'settled'> {
  const parties = child(transaction, 'RltdPties');
  // what is reversed names its parties as what it reverses did
  const paid = spent !== (text(entry, 'RvslInd') === 'true');
  const [theirs, ours] = paid ? ['Cdtr', 'Dbtr'] : ['Dbtr', 'Cdtr'];
  const person = partyOf(parties, theirs) ?? partyOf(parties, ours);
  const ultimate = partyOf(parties, `Ultmt${theirs}`);
  const remittance = children(child(transaction, 'RmtInf'), 'Ustrd').map(value).join(' ');
  const codes = children(child(child(person, 'Id'), 'OrgId'), 'Othr');
  const code = codes.find((c) => text(child(c, 'SchmeNm'), 'Prtry') === 'MCC');
  const references = child(transaction, 'Refs');
  const own = text(references, 'AcctSvcrRef');
  const whole = text(entry, 'AcctSvcrRef') || text(entry, 'NtryRef');
  const instructed = originalOf(transaction) ?? (several ? undefined : originalOf(entry));
  const currency = attribute(instructed, 'Ccy');
  const categoryCode = code ? text(code, 'Id') : '';
  const purchased = text(child(transaction, 'RltdDts'), 'AccptncDtTm').slice(0, 10);
  return {
    reference: (several ? own : whole || own) || null,
    purchasedOn: isIsoDate(purchased) ? purchased : null,
    charged:
      instructed && minorUnits(currency) !== null
        ? { amount: minus(amount(value(instructed), currency, where), !spent), currency }
        : null,
    merchant: merchantName(
      text(ultimate, 'Nm'),
      text(person, 'Nm'),
      remittance,
      text(transaction, 'AddtlTxInf'),
      text(entry, 'AddtlNtryInf'),
    ),
    country: text(child(person, 'PstlAdr'), 'Ctry') || null,
    categoryCode: /^\d{4}$/.test(categoryCode) ? categoryCode : null,
  };
}

/** What was asked of the account where that was in a currency of its own. */
function originalOf(node: Node): Node | undefined {
  const details = child(node, 'AmtDtls');
  const [instructed, taken] = ['InstdAmt', 'TxAmt'].map((name) => child(child(details, name), 'Amt'));
  return instructed ?? (taken && attribute(taken, 'Ccy') !== attribute(child(node, 'Amt'), 'Ccy') ? taken : undefined);
}

function partyOf(parties: Node | undefined, name: string): Node | undefined {
  const party = child(parties, name);
  return child(party, 'Pty') ?? party;
}

function signed(balance: Node, currency: string, what: string): string {
  return minus(amount(value(child(balance, 'Amt')), currency, what), text(balance, 'CdtDbtInd') === 'DBIT');
}

const minus = (plain: string, negative: boolean): string =>
  negative && !/^0(\.0+)?$/.test(plain) ? (plain.startsWith('-') ? plain.slice(1) : `-${plain}`) : plain;

/** Amounts stand without a sign; whether something was spent or came back is said beside them. */
function amount(plain: string, currency: string, where: string): string {
  if (plain.startsWith('-')) throw new StatementFault(`In ${where} the amount "${plain}" has a sign of its own.`);
  const read = readLocalAmount(trimZeros(plain), currency, '.');
  if (!read.ok) throw new StatementFault(`In ${where}: ${read.problem}.`);
  return read.amount;
}

/** A calendar date at the beginning of a moment; null where none is given. */
function dayOf(moment: string | null, what: string): string | null {
  if (!moment) return null;
  const day = moment.slice(0, 10);
  if (!isIsoDate(day))
    throw new StatementFault(`The statement gives "${moment.slice(0, 30)}" as ${what}, which is no date.`);
  return day;
}
const dateOf = (node: Node | undefined, name: string): string | null => {
  const date = child(node, name);
  return (text(date, 'Dt') || text(date, 'DtTm') || value(date)).slice(0, 10) || null;
};

function children(node: Node | undefined, name: string): Node[] {
  const found = node?.[name];
  const list = Array.isArray(found) ? found : found === undefined ? [] : [found];
  return list.map((v) => (typeof v === 'object' && v !== null ? (v as Node) : { '#text': v }));
}
const child = (node: Node | undefined, name: string): Node | undefined => children(node, name)[0];
const value = (node: Node | undefined): string => String(node?.['#text'] ?? '').trim();
const text = (node: Node | undefined, name: string): string => value(child(node, name));
const attribute = (node: Node | undefined, name: string): string => String(node?.[`@${name}`] ?? '');
