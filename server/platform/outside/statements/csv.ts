import { parse } from 'csv-parse/sync';
import type { Mapping } from '../../../../contract/statements.ts';
import { namedDate, possibleOrders, readLocalDate } from '../../../../core/numbers/readLocalDate.ts';

export interface Table {
  delimiter: Mapping['delimiter'];
  columns: string[];
  rows: { line: number; cells: string[] }[];
}
type Read = { ok: true; table: Table } | { ok: false; says: string };

/** More than that is no statement of a card; it is refused, never cut. */
const MOST_ROWS = 100_000;
/** By how many of its lines a table is looked at before it is read. */
const LOOKED_AT = 60;
const FEWEST_COLUMNS = 3;

/**
 * A CSV file as a table (RFC 4180; comma, semicolon, tab or bar between, with or without byte-order mark), or why it is
 * none. What stands above the headings is left out; a table without headings gets numbers for them.
 */
export function readTable(text: string): Read {
  const delimiter = delimiterOf(text);
  if (!delimiter) return { ok: false, says: 'It is neither camt.053, OFX, MT940 nor a table with columns.' };
  try {
    const options = { delimiter, bom: true, info: true, skip_empty_lines: true, relax_column_count: true } as const;
    const records = parse(text, { ...options, to: MOST_ROWS + LOOKED_AT }) as unknown as Parsed[];
    return tableOf(
      delimiter,
      records.map(({ record, info }) => ({ line: info.lines, cells: record })),
    );
  } catch (error) {
    const line = (error as { lines?: number }).lines;
    return {
      ok: false,
      says: `The table breaks${line ? ` at line ${line}` : ''}: a quotation mark is not closed or stands where it cannot.`,
    };
  }
}
interface Parsed {
  record: string[];
  info: { lines: number };
}

function tableOf(delimiter: Mapping['delimiter'], all: Table['rows']): Read {
  const filled = all.filter(({ cells }) => cells.some((c) => c.trim() !== ''));
  const width = usual(filled.slice(0, LOOKED_AT).map(({ cells }) => cells.length));
  const start = filled.findIndex(({ cells }) => cells.length === width && cells.filter((c) => c.trim()).length >= 2);
  const [head, ...rest] = filled.slice(Math.max(start, 0));
  if (!head) return { ok: false, says: 'The table has no rows under its headings.' };
  const headless = isData(head.cells);
  const rows = headless ? [head, ...rest] : rest;
  if (rows.length === 0) return { ok: false, says: 'The table has no rows under its headings.' };
  if (rows.length > MOST_ROWS)
    return { ok: false, says: `The table has more than ${MOST_ROWS} rows. Cut it into several files.` };
  const columns = head.cells.map((c, i) => (headless ? `Column ${i + 1}` : c.trim()));
  return { ok: true, table: { delimiter, columns, rows } };
}

/** Whether a row is one of the table's own, not its headings: a date and a figure are in it. */
function isData(cells: readonly string[]): boolean {
  const isDate = (cell: string) => namedDate(cell.trim()) !== null || possibleOrders([cell]).length > 0;
  return (
    cells.some(isDate) && cells.some((cell) => !isDate(cell) && /^\D{0,4}\d[\d.,'’ \u00a0]*\D{0,4}$/.test(cell.trim()))
  );
}

/** The number that comes most often; the larger of two that come as often. */
function usual(numbers: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const n of numbers) counts.set(n, (counts.get(n) ?? 0) + 1);
  return [...counts].sort(([a, x], [b, y]) => y - x || b - a)[0]?.[0] ?? 0;
}

/** The sign that divides most lines into as many parts. */
function delimiterOf(text: string): Mapping['delimiter'] | null {
  const lines = text
    .replace(/^\ufeff/, '')
    .split(/\r?\n/, LOOKED_AT)
    .map((line) => line.replace(/"(?:[^"]|"")*"/g, 'x'))
    .filter((line) => line.trim() !== '');
  const scored = ([';', ',', '\t', '|'] as const).map((delimiter) => {
    const widths = lines.map((line) => line.split(delimiter).length).filter((n) => n >= FEWEST_COLUMNS);
    const width = usual(widths);
    return { delimiter, score: width * widths.filter((n) => n === width).length };
  });
  const best = scored.reduce((a, b) => (b.score > a.score ? b : a));
  return best.score > 0 ? best.delimiter : null;
}

/** By what a mapping is remembered: the headings of the table. */
export const headingsOf = (table: Table): string => table.columns.map((c) => c.toLowerCase()).join('\u241f');

const NAMES: [keyof Mapping, RegExp][] = [
  ['purchased', /purchase|transaction date|kaufdatum|kjøpsdato|data da compra|date d.achat/],
  ['date', /book|buchung|bokfør|post|date|datum|dato|fecha|data/],
  ['originalAmount', /original amount|foreign amount|local amount|urspr|amount in currency/],
  ['originalCurrency', /original currency|foreign currency/],
  ['currency', /currency|währung|valuta|devise|moneda|moeda/],
  ['side', /debit.{0,3}credit|credit.{0,3}debit|d\/c|dr\/cr|soll.{0,3}haben|s\/h|^type$|^sign$|af.{0,2}bij|vorzeichen/],
  ['credit', /credit|haben|gutschrift|crédit|crédito|paid in|money in|innbetal|^inn$|^bij$/],
  [
    'amount',
    /amount|betrag|beløp|belopp|montant|importe|valor|importo|bedrag|debit|soll|belastung|débit|paid out|money out|^ut$|^af$/,
  ],
  ['merchant', /merchant|name|payee|description|text|empfänger|händler|libell|comercio|beskrivelse/],
  ['reference', /reference|referenz|ref|id$/],
  ['categoryCode', /mcc|category code/],
];
const NEEDED = ['date', 'amount', 'merchant'];

/** A mapping proposed from the headings and the first rows; what cannot be told is left for the person. */
export function proposeMapping(table: Table): Partial<Mapping> {
  const proposed: Partial<Record<keyof Mapping, unknown>> = { delimiter: table.delimiter };
  const used = new Set<number>();
  for (const [field, pattern] of NAMES) {
    const at = table.columns.findIndex((name, i) => !used.has(i) && pattern.test(name.toLowerCase()));
    if (at >= 0) used.add(at);
    proposed[field] = at >= 0 ? at : NEEDED.includes(field) ? undefined : null;
  }
  // One column of currencies beside an original amount tells that amount's.
  if (proposed.originalAmount !== null && proposed.originalCurrency === null)
    Object.assign(proposed, { originalCurrency: proposed.currency, currency: null });
  return { ...proposed, ...waysOf(toldBy(table), proposed) } as Partial<Mapping>;
}

/** What the cells of a column tell of how they are written. */
export interface Told {
  filled: number;
  /** The orders of day, month and year in which every cell is a date. */
  orders: Mapping['order'][];
  /** How many are a date in each order: one that is none in any says nothing. */
  dates: Record<Mapping['order'], number>;
  /** Every cell is a date with the name of its month. */
  named: boolean;
  mark: Mapping['mark'] | null;
  /** How many are written with a minus. */
  minus: number;
}
/** By how many of its rows it is told how a table writes. */
const TOLD_BY = 200;

export const toldBy = ({ columns, rows }: Table): Told[] =>
  columns.map((_, at) =>
    toldOf(
      rows
        .slice(0, TOLD_BY)
        .map((r) => (r.cells[at] ?? '').trim())
        .filter(Boolean),
    ),
  );

function toldOf(cells: readonly string[]): Told {
  const matching = (pattern: RegExp) => cells.filter((cell) => pattern.test(cell)).length;
  const [commas, points] = [matching(/,\d{1,2}\D*$/), matching(/\.\d{1,2}\D*$/)];
  return {
    filled: cells.length,
    orders: possibleOrders(cells),
    dates: { dmy: datesIn(cells, 'dmy'), mdy: datesIn(cells, 'mdy'), ymd: datesIn(cells, 'ymd') },
    named: cells.length > 0 && cells.every((cell) => namedDate(cell) !== null),
    mark: commas === points ? null : commas > points ? ',' : '.',
    minus: matching(/^\D{0,4}[-−(]|-\D{0,4}$/),
  };
}

const datesIn = (cells: readonly string[], order: Mapping['order']): number =>
  cells.filter((cell) => readLocalDate(cell, order) !== null).length;

/** How the table writes its dates, decimals and what was spent, as far as its rows tell. */
function waysOf(told: readonly Told[], { date, amount, credit, side }: Partial<Record<keyof Mapping, unknown>>) {
  const ways: Partial<Mapping> = {};
  const dates = told[date as number];
  if (dates && (dates.orders.length === 1 || dates.named)) ways.order = dates.orders[0] ?? 'dmy';
  const [amounts, credits] = [told[amount as number], told[credit as number]];
  if (amounts) {
    const mark = amounts.mark ?? credits?.mark;
    if (mark) ways.mark = mark;
    const apart = Boolean(credits) || typeof side === 'number';
    const filled = amounts.filled + (credits?.filled ?? 0);
    ways.spent = amounts.minus * 2 > filled && !(apart && amounts.minus === 0) ? 'negative' : 'positive';
  }
  return ways;
}

/**
 * A mapping that was kept for a table with the same headings, without what its rows contradict now: days that cannot be in that
 * order, another mark before the decimals, another sign of what was spent. That is left for the person. Example: day first was
 * kept, and 03/25/2026 stands there → no order.
 */
export function notContradicted(kept: Mapping, told: readonly Told[]): Partial<Mapping> {
  const ways = waysOf(told, kept);
  const dates = told[kept.date];
  const { order, mark, spent, ...columns } = kept;
  const orderFits = !dates || Object.values(dates.dates).every((count) => count <= dates.dates[order]);
  return {
    ...columns,
    ...(orderFits ? { order } : {}),
    ...(!ways.mark || ways.mark === mark ? { mark } : {}),
    ...(!ways.spent || ways.spent === spent || !told[kept.amount]?.filled ? { spent } : {}),
  };
}
