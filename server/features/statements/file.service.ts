import type { Statement } from '../../../core/evidence/statements/statement.types.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { Refused } from '../../platform/http/refusal.ts';
import {
  entriesOfTable,
  headingsOf,
  proposeMapping,
  readTable,
  type Table,
} from '../../platform/outside/statements/csv.ts';
import { readStatements, textOf } from '../../platform/outside/statements/readStatements.ts';
import { mappingSchema, type FileAnswer, type ImportOptions } from '../../../contract/statements.ts';
import { selectCard } from '../../records/cards/cards.queries.ts';
import { importStatements, mayImport } from './import.service.ts';
import { selectMapping, storeMapping } from './statements.queries.ts';

export interface GivenFile extends ImportOptions {
  name: string;
  bytes: Buffer;
}
const SAMPLE = 6;

/** Imports a statement file by hand. A table asks first which column holds what, and remembers the answer. */
export async function importFile(context: Context, actor: Actor, file: GivenFile): Promise<FileAnswer> {
  const text = textOf(file.bytes);
  const read = readStatements(text);
  if (read === null) return importTable(context, actor, file, text);
  if (!read.ok) throw new Refused('file-refused', { says: `${file.name} is not accepted. ${read.says}` });
  const document = {
    source: 'file' as const,
    name: file.name,
    format: read.format,
    original: file.bytes,
    by: actor,
  };
  return {
    kind: 'imported',
    name: file.name,
    format: read.format,
    outcomes: await importStatements(context, document, read.statements),
    problems: [],
  };
}

async function importTable(context: Context, actor: Actor, file: GivenFile, text: string): Promise<FileAnswer> {
  const read = readTable(text);
  if (!read.ok) throw new Refused('file-refused', { says: `${file.name} is not accepted. ${read.says}` });
  const { table } = read;
  if (!file.mapping || !file.card) return askForColumns(context, file.name, table);
  const card = await selectCard(context.db, file.card);
  if (!card || !mayImport(actor, card)) throw new Refused('not-found', { what: 'card' });
  const { entries, problems } = entriesOfTable(table, { ...file.mapping, delimiter: table.delimiter }, card.currency);
  await storeMapping(context.db, headingsOf(table), file.mapping, actor.id, context.clock.now());
  if (entries.length === 0) return { kind: 'imported', name: file.name, format: 'CSV', outcomes: [], problems };
  const days = entries.map((e) => e.bookedOn).sort();
  const statement: Statement = {
    id: null,
    account: card.id,
    currency: card.currency,
    from: days[0]!,
    to: days.at(-1)!,
    opening: null,
    closing: null,
    entries,
    stated: { count: null, sum: null },
  };
  const document = {
    source: 'file' as const,
    name: file.name,
    format: 'CSV' as const,
    original: file.bytes,
    readAs: JSON.stringify([card.id, file.mapping]),
    by: actor,
    card: card.id,
  };
  return {
    kind: 'imported',
    name: file.name,
    format: 'CSV',
    outcomes: await importStatements(context, document, [{ ok: true, statement }]),
    problems,
  };
}

async function askForColumns({ db }: Context, name: string, table: Table): Promise<FileAnswer> {
  const kept = mappingSchema.safeParse(await selectMapping(db, headingsOf(table)));
  return {
    kind: 'table',
    name,
    columns: table.columns,
    sample: table.rows.slice(0, SAMPLE).map((r) => r.cells),
    rows: table.rows.length,
    proposed: kept.success ? kept.data : proposeMapping(table),
    remembered: kept.success,
  };
}
