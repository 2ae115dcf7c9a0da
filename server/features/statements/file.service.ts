import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import type { Statement, StatementEntry } from '../../../core/evidence/statements/statement.types.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { RowsRead, TableHead } from '../../platform/outside/statements/readStatementFile.ts';
import { notContradicted } from '../../platform/outside/statements/columns/ways.ts';
import { Unreadable } from '../../platform/outside/unreadable.ts';
import { today } from '../../platform/ports/clock.ts';
import { mappingSchema, type FileAnswer, type ImportOptions } from '../../../contract/statements.ts';
import { selectCard, type CardRow } from '../../records/cards/cards.queries.ts';
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

/** A table is asked for its columns, then rehearsed, then taken; its columns are remembered once something was taken. */
async function importTable(context: Services, actor: Actor, file: GivenFile, head: TableHead): Promise<FileAnswer> {
  const { mapping } = file;
  if (!mapping || !file.card) return askForColumns(context, file.name, head);
  const card = await selectCard(context.db, file.card);
  if (card?.holder_id === actor.id) throw new Refused('own-record', { what: 'card' });
  if (!card || !mayImport(actor, card)) throw new Refused('not-found', { what: 'card' });
  const of = { currency: card.currency, digits: card.digits, today: today(context.clock) };
  const read = await orRefused(file, context.reader.rows(file.bytes, mapping, of, actor.id));
  if (file.rehearse) return rehearsalOf(file.name, card, read);
  const { entries, problems } = read;
  if (entries.length === 0) return { kind: 'imported', name: file.name, format: 'CSV', outcomes: [], problems };
  const document = {
    source: 'file' as const,
    name: file.name,
    format: 'CSV' as const,
    original: file.bytes,
    readAs: JSON.stringify([card.id, mapping]),
    by: actor,
    card: card.id,
    beside: (trx: Db) =>
      storeMapping(trx, { columns: head.headings, mapping, by: actor.id, card: card.id, at: context.clock.now() }),
  };
  const outcomes = await importStatements(context, document, [{ ok: true, statement: statementOf(card, entries) }]);
  return { kind: 'imported', name: file.name, format: 'CSV', outcomes, problems };
}

/** A table states no balances: its days are those of its entries. */
function statementOf(card: CardRow, entries: StatementEntry[]): Statement {
  const days = entries.map((e) => e.bookedOn).sort();
  return {
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
}

const SHOWN = 5;

/** What the rows would become: how many, what they come to on either side, from when to when, the first and the last. */
function rehearsalOf(name: string, { id, currency }: CardRow, { entries, problems }: RowsRead): FileAnswer {
  const days = entries.map((e) => e.bookedOn).sort();
  const minor = entries.map((e) => toMinor(e.settled, currency));
  const sumOf = (isMeant: (m: bigint) => boolean) =>
    fromMinor(
      minor.filter(isMeant).reduce((a, b) => a + b, 0n),
      currency,
    );
  return {
    kind: 'rehearsed',
    name,
    card: id,
    currency,
    rows: entries.length + problems.length,
    entries: entries.length,
    from: days[0] ?? null,
    to: days.at(-1) ?? null,
    spent: sumOf((m) => m > 0n),
    cameBack: sumOf((m) => m < 0n),
    first: entries.slice(0, SHOWN),
    last: entries.slice(Math.max(SHOWN, entries.length - SHOWN)),
    problems,
  };
}

async function askForColumns({ db }: Context, name: string, head: TableHead): Promise<FileAnswer> {
  const { columns, sample, rows, headings, proposed, told } = head;
  const last = await selectMapping(db, headings);
  const kept = mappingSchema.safeParse(last?.mapping);
  const remembered = last && kept.success ? { by: last.by, at: last.at.toISOString(), card: last.card } : null;
  const shown = kept.success ? notContradicted(kept.data, told) : proposed;
  return { kind: 'table', name, columns, sample, rows, proposed: shown, remembered };
}
