import { createHash } from 'node:crypto';
import { sha256 } from '../../platform/history/sha256.ts';
import { checkStatement } from '../../../core/evidence/statements/checkStatement.ts';
import { newEntries } from '../../../core/evidence/statements/newEntries.ts';
import type { Statement } from '../../../core/evidence/statements/statement.types.ts';
import type { Context } from '../../platform/context.ts';
import type { ReadStatement, StatementFormat } from '../../platform/outside/statements/readStatements.types.ts';
import { statementLifecycle } from '../../../core/workflow/lifecycles/gathering.ts';
import { judgeAct } from '../../../core/workflow/judgeAct.ts';
import type { Outcome } from '../../../contract/statements.ts';
import { performBirth } from '../../platform/acts/perform.ts';
import type { Actor } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { repeatable } from '../../platform/db/transaction.ts';
import { selectCard, type CardRow } from '../../records/cards/cards.queries.ts';
import {
  insertCharges,
  insertStatement,
  linkCharges,
  lockCard,
  nameCharge,
  refusalIsThere,
  selectCardOf,
  selectKnown,
  statementIsThere,
  type StatementRecord,
} from './statements.queries.ts';

export interface Document {
  source: 'feed' | 'file';
  name: string;
  format: StatementFormat;
  original: Buffer;
  /** How a table was read: the same file read in another way is another document. */
  readAs?: string;
  /** Who gave the file; null for the feed. */
  by: Actor | null;
  /** The card of a table, which names none itself. */
  card?: string;
  /** What is kept together with a statement that is taken, or not at all. */
  beside?: (trx: Db) => Promise<void>;
}
/**
 * Imports the statements of a document, each by itself: whole and right, or not at all. One that was imported before,
 * or that overlaps with others, adds only what is new.
 */
export async function importStatements(
  context: Context,
  document: Document,
  statements: readonly ReadStatement[],
): Promise<Outcome[]> {
  const digest = createHash('sha256')
    .update(document.original)
    .update(document.readAs ?? '')
    .digest('hex');
  const outcomes: Outcome[] = [];
  for (const [position, read] of statements.entries())
    outcomes.push(await importOne(context, { ...document, sha256: digest, position }, read));
  return outcomes;
}

/** Whether somebody may import for a card: by the role they hold for its entity. The feed may for all. */
export function mayImport(by: Actor | null, card: CardRow): boolean {
  const record = { state: null, entity: card.entity_id, people: { holder: card.holder_id } };
  return by === null || judgeAct(statementLifecycle, 'import', record, by, { isOn: () => true }).ok;
}

type Place = Document & { sha256: string; position: number };

async function importOne(context: Context, place: Place, read: ReadStatement): Promise<Outcome> {
  if (await statementIsThere(context.db, place.sha256, place.position)) return isThere(read);
  if (!read.ok) return refuse(context, place, read, null, read.says);
  const { statement } = read;
  const digits = statement.account.slice(-4);
  const found = place.card
    ? await selectCard(context.db, place.card)
    : await selectCardOf(context.db, statement.account);
  if (found && found !== 'several' && found.holder_id === place.by?.id)
    return refuse(
      context,
      place,
      read,
      null,
      `The card ${found.id} is your own; somebody else has to bring its statements.`,
    );
  const card = found && found !== 'several' && !mayImport(place.by, found) ? undefined : found;
  if (card === 'several')
    return refuse(
      context,
      place,
      read,
      null,
      `Several cards end in ${digits}, and the file does not give the whole number.`,
    );
  if (!card)
    return refuse(
      context,
      place,
      read,
      null,
      `No card ends in ${digits}. Ask an administrator to add it, then import again.`,
    );
  if (card.currency !== statement.currency)
    return refuse(
      context,
      place,
      read,
      card,
      `The card ${card.id} is kept in ${card.currency}, and the statement is in ${statement.currency}.`,
    );
  const problems = checkStatement(statement);
  if (problems.length > 0)
    return refuse(
      context,
      place,
      read,
      card,
      `${problems.join(' ')} Nothing of it was taken; ask the bank for the right one.`,
    );
  return take(context, place, statement, card);
}

function take(context: Context, place: Place, statement: Statement, card: CardRow): Promise<Outcome> {
  return repeatable(context, async (trx) => {
    await lockCard(trx, card.id);
    // Another process may have imported the same file while we waited.
    if (await statementIsThere(trx, place.sha256, place.position)) return isThere({ ok: true, statement });
    const days = statement.entries.map((e) => e.bookedOn).sort();
    const charges = days.length ? await selectKnown(trx, card, days[0]!, days.at(-1)!) : [];
    const unnamed = new Set(charges.filter((c) => c.reference === null).map((c) => c.id));
    const { fresh, known } = newEntries(statement.entries, charges);
    for (const { entry, id } of known)
      if (entry.reference !== null && unnamed.has(id)) await nameCharge(trx, id, entry.reference);
    const made = await insertCharges(trx, card, fresh);
    const id = await note(context, trx, place, card, {
      statement,
      entries: statement.entries.length,
      added: made.length,
      state: 'imported',
      says: null,
    });
    await linkCharges(trx, id, [...made, ...known.map((k) => k.id)]);
    await place.beside?.(trx);
    return { ...outcomeOf({ ok: true, statement }, 'imported', made.length, null), known: known.length };
  });
}

async function refuse(
  context: Context,
  place: Place,
  read: ReadStatement,
  card: CardRow | null,
  says: string,
): Promise<Outcome> {
  const statement = read.ok ? read.statement : null;
  const row = { statement: card ? statement : null, entries: statement?.entries.length ?? 0, added: 0, says };
  await repeatable(context, async (trx) => {
    if (!(await refusalIsThere(trx, place.sha256, place.position)))
      await note(context, trx, place, card, { ...row, state: 'refused' });
  });
  return outcomeOf(read, 'refused', 0, says);
}

type Noted = Pick<StatementRecord, 'statement' | 'entries' | 'added' | 'state' | 'says'>;

/** Keeps a statement as it came, with what became of it, and the event; its id. */
function note(context: Context, trx: Db, place: Place, card: CardRow | null, noted: Noted): Promise<bigint> {
  const act = noted.state === 'imported' ? 'import' : 'refuse';
  const entity = card?.entity_id ?? null;
  const birth = { lifecycle: statementLifecycle, act, actor: place.by, entity } as const;
  return performBirth(context, trx, birth, async () => {
    const at = context.clock.now();
    const id = await insertStatement(trx, { ...place, ...noted, by: place.by?.id ?? null, card, at });
    const facts = { card: card?.id ?? null, entries: noted.entries, added: noted.added };
    return { id: String(id), state: noted.state, result: id, facts, about: sha256(place.original) };
  });
}

const isThere = (read: ReadStatement): Outcome =>
  outcomeOf(read, 'there already', 0, 'This file was imported before; nothing was added.');

const outcomeOf = (read: ReadStatement, state: Outcome['state'], added: number, says: string | null): Outcome => ({
  account: read.ok ? read.statement.account : read.account,
  from: read.ok ? read.statement.from : null,
  to: read.ok ? read.statement.to : null,
  entries: read.ok ? read.statement.entries.length : 0,
  known: state === 'there already' && read.ok ? read.statement.entries.length : 0,
  pending: (read.ok && read.statement.pending) || 0,
  state,
  added,
  says,
});
