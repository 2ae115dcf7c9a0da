import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import type { z } from 'zod';
import { sayProblem, toProblem } from '../../../core/documents/readCase.ts';
import { sayIssue } from '../../../core/documents/sayIssue.ts';
import { isIsoDate } from '../../../core/numbers/isoDate.ts';
import { SETUP_ROWS, type FileOutcome, type SetupKind } from '../../../contract/setup.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { guardCell } from '../../platform/http/guardCell.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { DESCRIPTORS } from './descriptors.ts';
import { fileColumns, putRow, viewRows, writeKey } from './setup.service.ts';
import { selectLedgers, type MasterRow } from './setup.queries.ts';

/** A cell of a file: texts and numbers as they are, nothing as nothing, everything else as JSON. */
const writeCell = (value: unknown): string =>
  value === null || value === undefined ? '' : typeof value === 'object' ? JSON.stringify(value) : String(value);

/** The rows of a kind that somebody may look at as CSV (RFC 4180), as `takeFile` reads it. */
export async function writeFile(context: Pick<Context, 'db'>, actor: Actor, kind: SetupKind): Promise<string> {
  const { rows } = await viewRows(context, actor, kind);
  const columns = fileColumns(kind);
  const table = rows.map(({ row, validFrom, validTo }) => {
    const cells: Record<string, unknown> = { ...row, validFrom, validTo };
    return columns.map((column) => guardCell(writeCell(cells[column])));
  });
  return `\uFEFF${stringify([columns, ...table], { record_delimiter: 'windows' })}`;
}

interface FileRow extends MasterRow {
  line: number;
}
export interface Taken {
  line: number;
  key: string[];
  outcome: FileOutcome;
}

/** Thrown to undo a rehearsal; it carries what would have happened. */
class Rehearsed extends Error {
  readonly rows: Taken[];
  constructor(rows: Taken[]) {
    super('rehearsed');
    this.rows = rows;
  }
}

/**
 * Takes a file of rows whole, or, when anything is wrong, not at all, with the line and what to do. Without `apply` it does
 * everything and takes it back, so that what is said would happen is what would.
 */
export async function takeFile(
  context: Context,
  actor: Actor,
  kind: SetupKind,
  { csv, apply }: { csv: string; apply: boolean },
): Promise<{ applied: boolean; rows: Taken[] }> {
  const rows = readFile(kind, csv);
  try {
    const taken = await inTransaction(context, async (trx) => {
      const ledgers = await selectLedgers(trx);
      const done: Taken[] = [];
      for (const { line, ...row } of rows) {
        const outcome = await putRow(context, trx, actor, kind, row, null, ledgers).catch((error) => {
          throw atLine(error, line);
        });
        done.push({
          line,
          key: writeKey(DESCRIPTORS[kind].key.map((f) => (row.row[f] ?? null) as string | null)),
          outcome,
        });
      }
      if (!apply) throw new Rehearsed(done);
      return done;
    });
    return { applied: true, rows: taken };
  } catch (error) {
    if (error instanceof Rehearsed) return { applied: false, rows: error.rows };
    throw error;
  }
}

const refusedAt = (line: number, problem: string) =>
  new Refused('csv-refused', { problem: `Line ${line}: ${problem}`, line });
const atLine = (error: unknown, line: number): unknown =>
  error instanceof Refused ? refusedAt(line, error.says) : error;

function readFile(kind: SetupKind, csv: string): FileRow[] {
  const columns = fileColumns(kind);
  const [head, ...records] = parseCsv(csv);
  const given = head?.cells.map((c) => c.trim()) ?? [];
  const missing = columns.find((c) => !given.includes(c));
  const strange = given.find((c) => !columns.includes(c));
  if (missing) throw refusedAt(1, `the column ${missing} is missing. The columns are: ${columns.join(', ')}.`);
  if (strange) throw refusedAt(1, `there is no column ${strange}. The columns are: ${columns.join(', ')}.`);
  return records.map(({ line, cells }) => {
    if (cells.length !== given.length)
      throw refusedAt(line, `it has ${cells.length} cells, the heading ${given.length}.`);
    return readRow(kind, line, Object.fromEntries(given.map((c, i) => [c, unguarded(cells[i]!)])));
  });
}

function parseCsv(csv: string): { line: number; cells: string[] }[] {
  try {
    const options = { bom: true, info: true, skip_empty_lines: true, relax_column_count: true } as const;
    const records = parse(csv, options) as unknown as { record: string[]; info: { lines: number } }[];
    return records.map(({ record, info }) => ({ line: info.lines, cells: record }));
  } catch (error) {
    throw refusedAt(
      (error as { lines?: number }).lines ?? 1,
      'a quotation mark is not closed or stands where it cannot.',
    );
  }
}

/** The apostrophe that keeps spreadsheets from taking a text for a formula is not part of the text. */
const unguarded = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

function readRow(kind: SetupKind, line: number, cells: Record<string, string>): FileRow {
  const { validFrom = '', validTo = '', ...rest } = cells;
  for (const [name, day] of Object.entries({ validFrom, validTo }))
    if (day !== '' && !isIsoDate(day)) throw refusedAt(line, `${name} is not a calendar date written YYYY-MM-DD.`);
  const schema = SETUP_ROWS[kind] as z.ZodObject;
  const row = Object.fromEntries(Object.entries(rest).map(([field, cell]) => [field, readCell(schema, field, cell)]));
  const parsed = schema.safeParse(row, { error: sayIssue });
  if (!parsed.success) throw refusedAt(line, sayProblem(toProblem(parsed.error.issues[0]!)));
  return { line, row: parsed.data, validFrom: validFrom || null, validTo: validTo || null };
}

/** A cell as its field wants it: a text where the schema takes texts, else nothing or JSON. */
function readCell(schema: z.ZodObject, field: string, cell: string): unknown {
  const wanted = schema.shape[field] as z.ZodType;
  if (cell === '') return wanted.safeParse(null).success ? null : '';
  if (wanted.safeParse(cell).success) return cell;
  try {
    return JSON.parse(cell) as unknown;
  } catch {
    return cell;
  }
}
