import type { Mapping } from '../../../../contract/statements.ts';
import { rowsAgainst } from './rowsAgainst.ts';
import { daysBetween } from '../../../../core/numbers/isoDate.ts';
import { minorUnits } from '../../../../core/numbers/minorUnits.ts';
import { readLocalAmount } from '../../../../core/numbers/readLocalAmount.ts';
import { readLocalDate } from '../../../../core/numbers/readLocalDate.ts';
import type { StatementEntry } from '../../../../core/evidence/statements/statement.types.ts';
import type { Table } from './csv.ts';
import { merchantName } from './merchantName.ts';
import { isBack, isSpent } from './sideMarks.ts';

export interface RowProblem {
  line: number;
  says: string;
}
/** What is wrong with a row, in words for the person who gave the table. */
class RowFault extends Error {}

const DAYS_APART = 366;

/** The card a table is said to be of: its currency, the last digits of its number, and the day on which the table is read. */
export interface TableOf {
  currency: string;
  digits?: string;
  today?: string;
}

/**
 * The entries of a table by a mapping, and what is wrong in which line; together they are all of its rows. Rows that say that they
 * are of another card, or not booked, are no charges of this one.
 */
export function entriesOfTable(
  table: Table,
  mapping: Mapping,
  { currency, ...of }: TableOf,
): { entries: StatementEntry[]; problems: RowProblem[] } {
  const against = rowsAgainst(table, mapping, of);
  const read: { line: number; entry: StatementEntry }[] = [];
  const problems: RowProblem[] = [];
  for (const { line, cells } of table.rows) {
    try {
      const entry = entryOf(cells, mapping, currency);
      const says = against(cells, entry);
      if (says) throw new RowFault(says);
      read.push({ line, entry });
    } catch (error) {
      if (!(error instanceof RowFault)) throw error;
      problems.push({ line, says: error.message });
    }
  }
  const middle = read.map(({ entry }) => entry.bookedOn).sort()[read.length >> 1];
  const isFar = ({ bookedOn }: StatementEntry) => Math.abs(daysBetween(middle!, bookedOn)) > DAYS_APART;
  for (const { line, entry } of read)
    if (isFar(entry)) problems.push({ line, says: `${entry.bookedOn} is more than a year from the other rows` });
  return {
    entries: read.filter(({ entry }) => !isFar(entry)).map(({ entry }) => entry),
    problems: problems.sort((a, b) => a.line - b.line),
  };
}

type Cell = (at: number | null) => string;

function entryOf(cells: readonly string[], mapping: Mapping, currency: string): StatementEntry {
  const cell: Cell = (at) => (at === null ? '' : (cells[at] ?? '').trim());
  const stated = cell(mapping.currency).toUpperCase();
  if (stated && stated !== currency) throw new RowFault(`the amount is in ${stated}, the card in ${currency}`);
  const bookedOn = dateIn(cell(mapping.date), mapping);
  const purchased = cell(mapping.purchased);
  const settled = settledOf(cell, mapping, currency);
  if (!/[1-9]/.test(settled)) throw new RowFault('the amount is zero');
  const code = cell(mapping.categoryCode);
  return {
    reference: cell(mapping.reference) || null,
    bookedOn,
    purchasedOn: purchased ? dateIn(purchased, mapping) : null,
    settled,
    charged: originalOf(cell, mapping, currency, settled),
    merchant: merchantName(cell(mapping.merchant)),
    country: null,
    categoryCode: /^\d{4}$/.test(code) ? code : null,
  };
}

function dateIn(text: string, { order }: Mapping): string {
  const date = readLocalDate(text, order);
  if (!date) throw new RowFault(`the date "${text}" does not exist in the order ${order}`);
  return date;
}

/** What was spent (positive) or came back: by its sign, by one of two columns, or by a mark in a column of its own. */
function settledOf(cell: Cell, mapping: Mapping, currency: string): string {
  const [first, second] = [cell(mapping.amount), cell(mapping.credit)];
  if (mapping.credit !== null) return ofTwoColumns(first, second, mapping, currency);
  const amount = amountIn(first, currency, mapping);
  if (mapping.side === null) return mapping.spent === 'negative' ? negated(amount) : amount;
  const spent = saysSpent(cell(mapping.side));
  const usual = spent && mapping.spent === 'negative' ? '-' : '';
  if (amount.startsWith('-') !== (usual === '-'))
    throw new RowFault(`the amount "${first}" has a sign against its mark "${cell(mapping.side)}"`);
  return spent ? magnitude(amount) : negated(magnitude(amount));
}

function ofTwoColumns(debit: string, credit: string, mapping: Mapping, currency: string): string {
  const isNothing = (text: string) => !/[1-9]/.test(text);
  if (isNothing(debit) === isNothing(credit))
    throw new RowFault(isNothing(debit) ? 'there is no amount' : 'it was spent and came back at once');
  const spent = !isNothing(debit);
  const amount = amountIn(spent ? debit : credit, currency, mapping);
  if (amount.startsWith('-') && !(spent && mapping.spent === 'negative'))
    throw new RowFault(`the amount "${spent ? debit : credit}" has a sign against its column`);
  return spent ? magnitude(amount) : negated(amount);
}

function saysSpent(mark: string): boolean {
  if (isSpent(mark)) return true;
  if (isBack(mark)) return false;
  throw new RowFault(`"${mark}" does not say whether it was spent or came back`);
}

/** Signs of currencies that stand beside amounts, with the currencies they may mean. */
const SIGNS: Record<string, RegExp> = {
  '€': /^EUR$/,
  '£': /^(?:GBP|GIP|FKP|SHP|EGP)$/,
  '¥': /^(?:JPY|CNY)$/,
  '￥': /^(?:JPY|CNY)$/,
  円: /^JPY$/,
  $: /^(?:[A-Z]{2}D|MXN|ARS|CLP|COP|UYU)$/,
  '₹': /^INR$/,
  '₩': /^KRW$/,
  kr: /^(?:NOK|SEK|DKK|ISK)$/i,
  fr: /^CHF$/,
};

/** An amount with the sign or code of a currency beside it; one of another currency is refused. */
function amountIn(text: string, currency: string, { mark }: Mapping): string {
  const before = /^([-−+(]?) ?(\p{L}{2,3}\.?|\p{Sc}|円) ?/u.exec(text);
  const after = before ? null : / ?(\p{L}{2,3}\.?|\p{Sc}|円)(\)?)$/u.exec(text);
  const beside = before?.[2] ?? after?.[1];
  const plain = before
    ? before[1] + text.slice(before[0].length)
    : after
      ? text.slice(0, after.index) + after[2]
      : text;
  if (beside && !means(beside.replace('.', ''), currency))
    throw new RowFault(`the amount "${text}" is not in ${currency}, the card's currency`);
  const read = readLocalAmount(plain, currency, mark);
  if (!read.ok) throw new RowFault(read.problem);
  return read.amount;
}

const means = (beside: string, currency: string): boolean =>
  beside.toUpperCase() === currency || (SIGNS[beside] ?? SIGNS[beside.toLowerCase()])?.test(currency) === true;

/** What the merchant charged, where it was in another currency; its sign, when it has one, is that of the amount. */
function originalOf(cell: Cell, mapping: Mapping, currency: string, settled: string): StatementEntry['charged'] {
  const [text, code] = [cell(mapping.originalAmount), cell(mapping.originalCurrency).toUpperCase()];
  if (text === '' || code === '' || code === currency) return null;
  if (minorUnits(code) === null) throw new RowFault(`the currency "${code}" is none of ISO 4217`);
  const amount = amountIn(text, code, mapping);
  if (!/[1-9]/.test(amount)) throw new RowFault(`the original amount "${text}" is zero`);
  const raw = mapping.spent === 'negative' ? negated(settled) : settled;
  if (amount.startsWith('-') && !raw.startsWith('-'))
    throw new RowFault(`the original amount "${text}" has another sign than the amount`);
  return { amount: settled.startsWith('-') ? negated(magnitude(amount)) : magnitude(amount), currency: code };
}

const negated = (amount: string): string => (amount.startsWith('-') ? amount.slice(1) : `-${amount}`);
const magnitude = (amount: string): string => amount.replace(/^-/, '');
