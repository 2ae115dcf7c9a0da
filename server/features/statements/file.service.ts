import type { Statement } from '../../../core/evidence/statements/statement.types.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { TableHead } from '../../platform/outside/statements/readStatementFile.ts';
import { Unreadable } from '../../platform/outside/unreadable.ts';
import { mappingSchema, type FileAnswer, type ImportOptions } from '../../../contract/statements.ts';
import { selectCard } from '../../records/cards/cards.queries.ts';
import { importStatements, mayImport } from './import.service.ts';
import { selectMapping, storeMapping } from './statements.queries.ts';

export interface GivenFile extends ImportOptions {
  name: string;
  bytes: Buffer;
}

/** Imports a statement file by hand. A table asks first which column holds what, and remembers the answer. */
export async function importFile(context: Services, actor: Actor, file: GivenFile): Promise<FileAnswer> {
  const given = await orRefused(file, context.reader.statements(file.bytes, actor.id));
  if (given.kind === 'table') return importTable(context, actor, file, given.head);
  const { read } = given;
  if (!read.ok) throw refusal(file, read.says);
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

const refusal = ({ name }: GivenFile, says: string) =>
  new Refused('file-refused', { says: `${name} is not accepted. ${says}` });

/** What was read of a file; what cannot be read is refused by its name. */
const orRefused = <T>(file: GivenFile, reading: Promise<T>): Promise<T> =>
  reading.catch((error: unknown) => {
    throw error instanceof Unreadable ? refusal(file, error.message) : error;
  });

async function importTable(context: Services, actor: Actor, file: GivenFile, head: TableHead): Promise<FileAnswer> {
  if (!file.mapping || !file.card) return askForColumns(context, file.name, head);
  const card = await selectCard(context.db, file.card);
  if (card?.holder_id === actor.id) throw new Refused('own-record', { what: 'card' });
  if (!card || !mayImport(actor, card)) throw new Refused('not-found', { what: 'card' });
  const rows = context.reader.rows(file.bytes, file.mapping, card.currency, actor.id);
  const { entries, problems } = await orRefused(file, rows);
  await storeMapping(context.db, head.headings, file.mapping, actor.id, context.clock.now());
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

async function askForColumns({ db }: Context, name: string, head: TableHead): Promise<FileAnswer> {
  const { columns, sample, rows, headings, proposed } = head;
  const kept = mappingSchema.safeParse(await selectMapping(db, headings));
  return {
    kind: 'table',
    name,
    columns,
    sample,
    rows,
    proposed: kept.success ? kept.data : proposed,
    remembered: kept.success,
  };
}
