import type { Mapping } from '../../../../contract/statements.ts';
import { Unreadable } from '../unreadable.ts';
import { headingsOf, readTable, type Table } from './csv.ts';
import { proposeMapping } from './columns/proposeMapping.ts';
import { toldBy } from './columns/columnOf.ts';
import type { Told } from './columns/told.ts';
import { entriesOfTable, type RowProblem, type TableOf } from './tableRows.ts';
import { readStatements } from './readStatements.ts';
import { textOf } from './textOf.ts';
import type { ReadFile } from './readStatements.types.ts';
import type { StatementEntry } from '../../../../core/evidence/statements/statement.types.ts';

/** What the server needs to know of a table before somebody says what its columns hold. */
export interface TableHead {
  columns: string[];
  /** The first rows, and how many there are. */
  sample: string[][];
  rows: number;
  /** By what a mapping of this table is remembered. */
  headings: string;
  proposed: Partial<Mapping>;
  /** How each column is written, by its rows. */
  told: Told[];
}
export type StatementFile = { kind: 'statements'; read: ReadFile } | { kind: 'table'; head: TableHead };
export interface RowsToRead {
  bytes: Buffer;
  mapping: Omit<Mapping, 'delimiter'>;
  of: TableOf;
}
export interface RowsRead {
  entries: StatementEntry[];
  problems: RowProblem[];
}
const SAMPLE = 6;

/** A file of statements, or the head of a table; Unreadable when it is neither. */
export function readStatementFile(bytes: Buffer): StatementFile {
  const text = textOf(bytes);
  const read = readStatements(text);
  if (read !== null) return { kind: 'statements', read };
  const table = tableOf(text);
  const sample = table.rows.slice(0, SAMPLE).map((r) => r.cells);
  const head = { columns: table.columns, sample, rows: table.rows.length, headings: headingsOf(table) };
  return { kind: 'table', head: { ...head, proposed: proposeMapping(table), told: toldBy(table) } };
}

/** The rows of a table by a mapping, with what is wrong in which line. */
export function readRows({ bytes, mapping, of }: RowsToRead): RowsRead {
  const table = tableOf(textOf(bytes));
  return entriesOfTable(table, { ...mapping, delimiter: table.delimiter }, of);
}

function tableOf(text: string): Table {
  const read = readTable(text);
  if (!read.ok) throw new Unreadable(read.says);
  return read.table;
}
