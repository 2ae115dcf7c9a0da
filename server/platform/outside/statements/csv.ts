import { parse } from 'csv-parse/sync';
import type { Mapping } from '../../../../contract/statements.ts';
import { namedDate, possibleOrders } from '../../../../core/numbers/readLocalDate.ts';

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
