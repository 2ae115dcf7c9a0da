import { XMLParser } from 'fast-xml-parser';
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
  htmlEntities: false,
});

/** Reads ISO 20022 camt.053 (bank to customer statement), any version: what the versions differ in is read either way. */
export function readCamt053(xml: string): ReadFile {
  let tree: Node;
  try {
    tree = parser.parse(xml, true) as Node;
  } catch {
    return { ok: false, says: 'The file breaks off in the middle, so nothing of it was taken. Fetch it again.' };
  }
  const message = child(child(tree, 'Document') ?? tree, 'BkToCstmrStmt');
  const statements = children(message, 'Stmt');
  if (statements.length === 0) return { ok: false, says: 'It holds no statement.' };
  return { ok: true, format: 'camt.053', statements: statements.map(readOne) };
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
  const balance = (...codes: string[]) =>
    balances.find((b) => codes.includes(text(child(child(b, 'Tp'), 'CdOrPrtry'), 'Cd')));
  const [opening, closing] = [balance('OPBD', 'PRCD'), balance('CLBD')];
  const currency =
    text(child(node, 'Acct'), 'Ccy')
    || attribute(child(opening ?? closing, 'Amt'), 'Ccy')
    || attribute(child(child(node, 'Ntry'), 'Amt'), 'Ccy');
  if (minorUnits(currency) === null)
    throw new StatementFault(`The statement's currency "${currency}" is none of ISO 4217.`);
  const period = child(node, 'FrToDt');
  const summary = child(child(node, 'TxsSummry'), 'TtlNtries');
  const count = text(summary, 'NbOfNtries');
  const sum = text(summary, 'Sum');
  return {
    id: text(node, 'Id') || null,
    account,
    currency,
    from: text(period, 'FrDtTm').slice(0, 10) || dateOf(opening, 'Dt'),
    to: text(period, 'ToDtTm').slice(0, 10) || dateOf(closing, 'Dt'),
    opening: opening ? signed(opening, currency, 'the opening balance') : null,
    closing: closing ? signed(closing, currency, 'the closing balance') : null,
    entries: children(node, 'Ntry').flatMap((entry, i) => entriesOf(entry, i + 1, currency)),
    stated: {
      count: /^\d{1,9}$/.test(count) ? Number(count) : null,
      sum: sum ? amount(sum, currency, 'the sum of its entries') : null,
    },
  };
}

/** One booked entry; a batch of several transactions with amounts of their own is as many. Pending ones are left out. */
function entriesOf(entry: Node, number: number, currency: string): StatementEntry[] {
  const status = text(child(entry, 'Sts'), 'Cd') || text(entry, 'Sts');
  if (status !== '' && status !== 'BOOK') return [];
  const where = `entry ${number}`;
  const bookedOn = dateOf(entry, 'BookgDt') ?? dateOf(entry, 'ValDt');
  if (!bookedOn || !isIsoDate(bookedOn))
    throw new StatementFault(`In ${where} the booking date "${bookedOn ?? ''}" does not exist.`);
  const details = children(child(entry, 'NtryDtls'), 'TxDtls');
  const several = details.length > 1 && details.every((d) => child(d, 'Amt') || child(d, 'AmtDtls'));
  const transactions = several ? details : [details[0] ?? {}];
  return transactions.map((transaction) => {
    const money = several
      ? (child(transaction, 'Amt') ?? child(child(child(transaction, 'AmtDtls'), 'TxAmt'), 'Amt'))
      : child(entry, 'Amt');
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
}

function factsOf(
  entry: Node,
  transaction: Node,
  spent: boolean,
  several: boolean,
  where: string,
): Omit<StatementEntry, 'bookedOn' | 'settled'> {
  const parties = child(transaction, 'RltdPties');
  const party = child(parties, spent ? 'Cdtr' : 'Dbtr') ?? child(parties, spent ? 'Dbtr' : 'Cdtr');
  const person = child(party, 'Pty') ?? party;
  const codes = children(child(child(person, 'Id'), 'OrgId'), 'Othr');
  const code = codes.find((c) => text(child(c, 'SchmeNm'), 'Prtry') === 'MCC');
  const references = child(transaction, 'Refs');
  const own = text(references, 'AcctSvcrRef');
  const whole = text(entry, 'AcctSvcrRef') || text(entry, 'NtryRef');
  const instructed = child(child(child(transaction, 'AmtDtls'), 'InstdAmt'), 'Amt');
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
    merchant: merchantName(text(person, 'Nm'), text(transaction, 'AddtlTxInf'), text(entry, 'AddtlNtryInf')),
    country: text(child(person, 'PstlAdr'), 'Ctry') || null,
    categoryCode: /^\d{4}$/.test(categoryCode) ? categoryCode : null,
  };
}

function signed(balance: Node, currency: string, what: string): string {
  return minus(amount(value(child(balance, 'Amt')), currency, what), text(balance, 'CdtDbtInd') === 'DBIT');
}

const minus = (plain: string, negative: boolean): string =>
  negative && !/^0(\.0+)?$/.test(plain) ? (plain.startsWith('-') ? plain.slice(1) : `-${plain}`) : plain;

function amount(plain: string, currency: string, where: string): string {
  const read = readLocalAmount(trimZeros(plain), currency, '.');
  if (!read.ok) throw new StatementFault(`In ${where}: ${read.problem}.`);
  return read.amount;
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
