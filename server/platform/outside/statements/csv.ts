import { parse } from 'csv-parse/sync';
import type { Mapping } from '../../../../contract/statements.ts';
import { minorUnits } from '../../../../core/numbers/minorUnits.ts';
import { possibleOrders, readLocalDate } from '../../../../core/numbers/readLocalDate.ts';
import { readLocalAmount } from '../../../../core/numbers/readLocalAmount.ts';
import type { StatementEntry } from '../../../../core/evidence/statements/statement.types.ts';
import { merchantName } from './merchantName.ts';

export interface Table {
  delimiter: Mapping['delimiter'];
  columns: string[];
  rows: { line: number; cells: string[] }[];
}
const MOST_ROWS = 50_000;

/** A CSV file as a table (RFC 4180; comma, semicolon, tab or bar between, with or without byte-order mark), or why it is none. */
export function readTable(text: string): { ok: true; table: Table } | { ok: false; says: string } {
  const delimiter = delimiterOf(text);
  if (!delimiter) return { ok: false, says: 'It is neither camt.053, OFX, MT940 nor a table with columns.' };
  try {
    const records = parse(text, {
      delimiter,
      bom: true,
      info: true,
      skip_empty_lines: true,
      relax_column_count: true,
      to: MOST_ROWS,
    }) as unknown as { record: string[]; info: { lines: number } }[];
    const [head, ...rest] = records;
    if (!head || rest.length === 0) return { ok: false, says: 'The table has no rows under its headings.' };
    const columns = head.record.map((c) => c.trim());
    return {
      ok: true,
      table: { delimiter, columns, rows: rest.map((r) => ({ line: r.info.lines, cells: r.record })) },
    };
  } catch (error) {
    const line = (error as { lines?: number }).lines;
    return {
      ok: false,
      says: `The table breaks${line ? ` at line ${line}` : ''}: a quotation mark is not closed or stands where it cannot.`,
    };
  }
}

function delimiterOf(text: string): Mapping['delimiter'] | null {
  const [head = ''] = text.replace(/^\ufeff/, '').split(/\r?\n/, 1);
  const bare = head.replace(/"(?:[^"]|"")*"/g, 'x');
  const counts = ([';', ',', '\t', '|'] as const).map((d) => ({ d, n: bare.split(d).length - 1 }));
  const best = counts.reduce((a, c) => (c.n > a.n ? c : a));
  return best.n >= 2 ? best.d : null;
}

/** By what a mapping is remembered: the headings of the table. */
export const headingsOf = (table: Table): string => table.columns.map((c) => c.toLowerCase()).join('\u241f');

const NAMES: [keyof Mapping, RegExp][] = [
  ['purchased', /purchase|transaction date|kaufdatum|kjøpsdato|data da compra|date d.achat/],
  ['date', /book|buchung|bokfør|post|date|datum|dato|fecha|data/],
  ['originalAmount', /original amount|foreign amount|local amount|urspr|amount in currency/],
  ['originalCurrency', /original currency|foreign currency|currency|währung|valuta|devise|moneda/],
  ['amount', /amount|betrag|beløp|belopp|montant|importe|valor|importo|bedrag/],
  ['merchant', /merchant|name|payee|description|text|empfänger|händler|libell|comercio|beskrivelse/],
  ['reference', /reference|referenz|ref|id$/],
  ['categoryCode', /mcc|category code/],
];

/** A mapping proposed from the headings and the first rows; what cannot be told is left for the person. */
export function proposeMapping(table: Table): Partial<Mapping> {
  const proposed: Partial<Record<keyof Mapping, unknown>> = { delimiter: table.delimiter };
  const used = new Set<number>();
  for (const [field, pattern] of NAMES) {
    const at = table.columns.findIndex((name, i) => !used.has(i) && pattern.test(name.toLowerCase()));
    if (at >= 0) used.add(at);
    proposed[field] = at >= 0 ? at : field === 'date' || field === 'amount' || field === 'merchant' ? undefined : null;
  }
  const sample = (at: unknown) => table.rows.slice(0, 200).map((r) => r.cells[at as number] ?? '');
  if (proposed.date !== undefined) {
    const orders = possibleOrders(sample(proposed.date));
    if (orders.length === 1) proposed.order = orders[0];
  }
  if (proposed.amount !== undefined) {
    const amounts = sample(proposed.amount);
    const commas = amounts.filter((a) => /,\d{1,2}\D*$/.test(a)).length;
    const points = amounts.filter((a) => /\.\d{1,2}\D*$/.test(a)).length;
    if (commas !== points) proposed.mark = commas > points ? ',' : '.';
    const minus = amounts.filter((a) => /^\s*[-−(]|-\s*$/.test(a)).length;
    proposed.spent = minus * 2 > amounts.length ? 'negative' : 'positive';
  }
  return proposed as Partial<Mapping>;
}

export interface RowProblem {
  line: number;
  says: string;
}

/** The entries of a table by a mapping, and what is wrong in which line. Good rows are kept whatever the others are. */
export function entriesOfTable(
  table: Table,
  mapping: Mapping,
  currency: string,
): { entries: StatementEntry[]; problems: RowProblem[] } {
  const entries: StatementEntry[] = [];
  const problems: RowProblem[] = [];
  for (const { line, cells } of table.rows) {
    const read = entryOf(cells, mapping, currency);
    if (typeof read === 'string') problems.push({ line, says: read });
    else entries.push(read);
  }
  return { entries, problems };
}

function entryOf(cells: readonly string[], mapping: Mapping, currency: string): StatementEntry | string {
  const cell = (at: number | null) => (at === null ? '' : (cells[at] ?? '').trim());
  const bookedOn = readLocalDate(cell(mapping.date), mapping.order);
  if (!bookedOn) return `the date "${cell(mapping.date)}" does not exist in the order ${mapping.order}`;
  const amount = readLocalAmount(cell(mapping.amount), currency, mapping.mark);
  if (!amount.ok) return amount.problem;
  if (/^0(\.0+)?$/.test(amount.amount)) return 'the amount is zero';
  const purchased = cell(mapping.purchased);
  const purchasedOn = purchased ? readLocalDate(purchased, mapping.order) : null;
  if (purchased && !purchasedOn) return `the date "${purchased}" does not exist in the order ${mapping.order}`;
  const original = originalOf(cell(mapping.originalAmount), cell(mapping.originalCurrency), currency, mapping);
  if (typeof original === 'string') return original;
  const code = cell(mapping.categoryCode);
  const flip = mapping.spent === 'negative';
  return {
    reference: cell(mapping.reference) || null,
    bookedOn,
    purchasedOn,
    settled: flip ? negated(amount.amount) : amount.amount,
    charged: original && {
      ...original,
      amount:
        (amount.amount.startsWith('-') !== flip) !== original.amount.startsWith('-')
          ? negated(original.amount)
          : original.amount,
    },
    merchant: merchantName(cell(mapping.merchant)),
    country: null,
    categoryCode: /^\d{4}$/.test(code) ? code : null,
  };
}

function originalOf(
  text: string,
  code: string,
  currency: string,
  { mark }: Mapping,
): { amount: string; currency: string } | null | string {
  if (text === '' || code === '' || code === currency) return null;
  if (minorUnits(code) === null) return `the currency "${code}" is none of ISO 4217`;
  const read = readLocalAmount(text, code, mark);
  return read.ok ? { amount: read.amount, currency: code } : read.problem;
}

const negated = (amount: string): string => (amount.startsWith('-') ? amount.slice(1) : `-${amount}`);
