import { parse } from 'csv-parse/browser/esm/sync';
import { minorUnits } from '../../../../core/numbers/minorUnits.ts';
import { readLocalAmount } from '../../../../core/numbers/readLocalAmount.ts';
import { readLocalDate, type DateOrder } from '../../../../core/numbers/readLocalDate.ts';
import type { NewLine } from '../../../api/drafts.ts';

export type Column = 'date' | 'merchant' | 'description' | 'category' | 'amount' | 'currency' | 'country';
export interface PasteContext {
  categories: readonly { id: string; name: string }[];
  /** The currency of amounts that name none, and the category of rows that name none. */
  currency: string;
  category: string | null;
  /** How dates and amounts are written, when the person says so; else what reads most rows. */
  order?: DateOrder | undefined;
  mark?: '.' | ',' | undefined;
  /** What was put right since, by the row and its column. */
  put?: Put | undefined;
}
export type Put = Readonly<Record<number, Partial<Record<Column, string>>>>;
export interface PastedRow {
  /** The row of what was pasted, headings included, counted from 1. */
  row: number;
  line: NewLine | null;
  /** What stands in it, and under which columns. */
  cells: string[];
  said: Record<Column, string>;
  /** What could not be read, in words. */
  problems: string[];
}
export interface Pasted {
  columns: (Column | null)[];
  order: DateOrder;
  mark: '.' | ',';
  rows: PastedRow[];
}

const HEADINGS: Record<Column, RegExp> = {
  date: /^(date|day|datum|data|fecha|dato)$/,
  merchant: /^(merchant|supplier|vendor|payee|shop|where)$/,
  description: /^(description|what|text|note|purpose|details?)$/,
  category: /^(category|type|kind)$/,
  amount: /^(amount|total|gross|sum|price|cost)$/,
  currency: /^(currency|cur|ccy)$/,
  country: /^country$/,
};
const COLUMNS = Object.keys(HEADINGS) as Column[];
const ORDERS: readonly DateOrder[] = ['ymd', 'dmy', 'mdy'];

/**
 * Lines from a block of a spreadsheet: cells parted by tabs, semicolons or commas, quoted or not. Columns are known by their
 * headings, else by what stands in them. Every row comes back, as a line or with what could not be read of it. Example:
 * "2026-11-02⇥Quay Stores⇥12,50" → one line of 12.50.
 */
export function readPasted(text: string, context: PasteContext): Pasted {
  const table = cellsOf(text);
  const headed = table.length > 0 && table[0]!.some((cell) => headingOf(cell) !== null) && table[0]!.every(isHeading);
  const body = headed ? table.slice(1) : table;
  const columns = headed ? table[0]!.map(headingOf) : columnsByContent(body, context);
  const written = (row: readonly string[], column: Column) => (row[columns.indexOf(column)] ?? '').trim();
  const numberOf = new Map<readonly string[], number>(body.map((row, i) => [row, i + 1 + (headed ? 1 : 0)]));
  const at = (row: readonly string[], column: Column): string => {
    const put = context.put?.[numberOf.get(row)!] ?? {};
    if (column === 'amount' || column === 'currency') return moneyIn(put, (c) => written(row, c))[column];
    return (put[column] ?? written(row, column)).trim();
  };
  const order = context.order ?? mostRead(ORDERS, (o) => body.filter((r) => readLocalDate(at(r, 'date'), o)).length);
  const currencyOf = (row: readonly string[]) => at(row, 'currency').toUpperCase() || context.currency;
  const reads = (row: readonly string[], mark: '.' | ',') =>
    readLocalAmount(at(row, 'amount'), currencyOf(row), mark).ok;
  const mark = context.mark ?? mostRead(['.', ','] as const, (m) => body.filter((r) => reads(r, m)).length);
  const cell = (row: readonly string[]) => (column: Column) => at(row, column);
  const rows = body.map((row) => ({
    row: numberOf.get(row)!,
    said: Object.fromEntries(COLUMNS.map((column) => [column, at(row, column)])) as PastedRow['said'],
    cells: row.filter((text) => text !== ''),
    ...readRow(cell(row), { order, mark, currency: currencyOf(row) }, context),
  }));
  return { columns, order, mark, rows };
}

/** Amount and currency of a row; the currency may stand beside the amount, as in "1500 JPY" or "EUR 12.50". */
function moneyIn(
  put: Partial<Record<Column, string>>,
  written: (column: Column) => string,
): { amount: string; currency: string } {
  const cell = (put.amount ?? written('amount')).trim();
  const [word = '', ...others] = cell.match(/[a-z]+/gi) ?? [];
  const beside = others.length === 0 && (cell.startsWith(word) || cell.endsWith(word));
  const named = beside ? word.toUpperCase() : '';
  const currency = (put.currency ?? written('currency')).trim();
  return minorUnits(named) === null
    ? { amount: cell, currency }
    : { amount: cell.replace(word, '').trim(), currency: named };
}

function cellsOf(text: string): string[][] {
  const delimiter = ['\t', ';', ','].find((d) => text.includes(d)) ?? '\t';
  const options = { delimiter, relax_quotes: true, relax_column_count: true, skip_empty_lines: true, trim: true };
  return cellsBy(text, options).filter((row) => row.some((cell) => cell !== ''));
}

/** A quote that is never closed is a mark like any other. */
function cellsBy(text: string, options: object): string[][] {
  try {
    return parse(text, options) as string[][];
  } catch {
    return parse(text, { ...options, quote: false }) as string[][];
  }
}

const headingOf = (cell: string): Column | null =>
  (Object.keys(HEADINGS) as Column[]).find((column) => HEADINGS[column].test(cell.trim().toLowerCase())) ?? null;
/** Words without figures: nothing that could be a date or an amount. */
const isHeading = (cell: string): boolean => !/\d/.test(cell);

/** What reads most rows; the first of those that read the same number. */
function mostRead<T>(ways: readonly T[], count: (way: T) => number): T {
  return ways.reduce((best, way) => (count(way) > count(best) ? way : best));
}

function columnsByContent(rows: readonly string[][], { categories, currency }: PasteContext): (Column | null)[] {
  const width = Math.max(0, ...rows.map((r) => r.length));
  const taken = new Set<Column>();
  const isCategory = (cell: string) => categoryOf(cell, categories) !== null;
  const tests: [Column, (cell: string) => boolean][] = [
    ['date', (c) => ORDERS.some((o) => readLocalDate(c, o) !== null)],
    ['currency', (c) => /^[A-Za-z]{3}$/.test(c) && minorUnits(c.toUpperCase()) !== null],
    ['category', isCategory],
    ['country', (c) => /^[A-Z]{2}$/.test(c)],
    ['amount', (c) => isMoney(c, currency)],
    ['merchant', () => true],
    ['description', () => true],
  ];
  return Array.from({ length: width }, (_, i) => {
    const cells = rows.map((r) => (r[i] ?? '').trim()).filter((c) => c !== '');
    const found = tests.find(
      ([column, is]) => !taken.has(column) && cells.length > 0 && cells.filter(is).length * 2 >= cells.length,
    );
    if (found) taken.add(found[0]);
    return found?.[0] ?? null;
  });
}

function isMoney(cell: string, usual: string): boolean {
  const { amount, currency } = moneyIn({}, (column) => (column === 'amount' ? cell : usual));
  return (['.', ','] as const).some((mark) => readLocalAmount(amount, currency, mark).ok);
}

/** By its code or its name; else the only one of which what is written is the beginning, or the other way round. */
function categoryOf(cell: string, categories: PasteContext['categories']): string | null {
  const wanted = cell.trim().toLowerCase();
  if (wanted === '') return null;
  const whole = categories.find((c) => c.id.toLowerCase() === wanted || c.name.toLowerCase() === wanted);
  const begun = categories.filter(({ name }) => {
    const known = name.toLowerCase();
    return known.startsWith(wanted) || wanted.startsWith(known);
  });
  return whole?.id ?? (begun.length === 1 ? begun[0]!.id : null);
}

type Way = { order: DateOrder; mark: '.' | ','; currency: string };

function readRow(
  cell: (column: Column) => string,
  { order, mark, currency }: Way,
  context: PasteContext,
): { line: NewLine | null; problems: string[] } {
  const date = readLocalDate(cell('date'), order);
  const amount = readLocalAmount(cell('amount'), currency, mark);
  const named = cell('category');
  const category = named ? categoryOf(named, context.categories) : context.category;
  const country = cell('country').toUpperCase() || null;
  const problems = [
    ...(date ? [] : [cell('date') ? `"${cell('date')}" is not a date` : 'there is no date']),
    ...(amount.ok ? [] : [amount.problem]),
    ...(category ? [] : [named ? `there is no category "${named}"` : 'there is no category']),
    ...(country && !/^[A-Z]{2}$/.test(country) ? [`"${country}" is not a country of two letters`] : []),
    ...(cell('merchant').length > 140 ? ['the merchant is longer than 140 characters'] : []),
    ...(cell('description').length > 300 ? ['the description is longer than 300 characters'] : []),
  ];
  if (problems.length > 0 || !date || !amount.ok || !category) return { line: null, problems };
  const line: NewLine = {
    date,
    amount: { amount: amount.amount, currency },
    category,
    merchant: cell('merchant') || null,
    description: cell('description') || null,
    ...(country ? { country } : {}),
  };
  return { line, problems };
}
