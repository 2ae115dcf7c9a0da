import { z } from 'zod';
import { checked } from '../../platform/http/guards.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import { EVERY_ENTITY } from '../../../core/workflow/lifecycle.types.ts';
import { settingLifecycle, type SettingState } from '../../../core/workflow/lifecycles/keeping.ts';
import {
  KEEPERS,
  SETUP_KINDS,
  SETUP_ROWS,
  type AddRow,
  type EndRow,
  type FileOutcome,
  type SetupKind,
} from '../../../contract/setup.ts';
import type { Asked, LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import { perform, performBirth } from '../../platform/acts/perform.ts';
import { entitiesOf, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { selectAccountCodes } from '../../records/book/book.queries.ts';
import { selectEvents } from '../../platform/history/history.queries.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { DESCRIPTORS, hasValidity, isDated, type Descriptor } from './descriptors.ts';
import { followUps } from './followUps.ts';
import { ownerOf } from './ownRows.ts';
import {
  endMasterRow,
  insertMasterRow,
  lockKey,
  selectKeyRows,
  selectLedgers,
  selectMasterRows,
  selectRevision,
  selectRevisions,
  UnstorableField,
  updateMasterRow,
  type Key,
  type Ledgers,
  type MasterRow,
} from './setup.queries.ts';

/** The kinds there are, with the columns of their files. */
export const viewKinds = () => ({
  kinds: SETUP_KINDS.map((kind) => ({ kind, dated: isDated(DESCRIPTORS[kind]), columns: fileColumns(kind) })),
});
/** Fields, then validity where rows have one: the columns of a kind's files. */
export const fileColumns = (kind: SetupKind): string[] => [
  ...Object.keys(DESCRIPTORS[kind].columns),
  ...(hasValidity(DESCRIPTORS[kind]) ? ['validFrom', 'validTo'] : []),
];

const keyOf = ({ key }: Descriptor, row: Record<string, unknown>): Key =>
  key.map((field) => (row[field] ?? null) as string | null);
/** A key as the history names it; null is written *. */
const recordIdOf = (kind: SetupKind, key: Key): string => `${kind}/${key.map((k) => k ?? '*').join('/')}`;
export const writeKey = (key: Key): string[] => key.map((k) => k ?? '*');
/** A key of a kind as it was written; one of another shape is nobody's. */
function readKey(kind: SetupKind, key: readonly string[]): Key {
  if (key.length !== DESCRIPTORS[kind].key.length) throw new Refused('not-found', { what: 'row of that key' });
  return key.map((k) => (k === '*' ? null : k));
}

/** To which entity rows belong: one that all of them name; otherwise they are the whole organisation's. */
function entityOf(rows: readonly MasterRow[]): string {
  const named = new Set(rows.map(({ row }) => row.entity));
  const [entity] = named;
  return named.size === 1 && typeof entity === 'string' ? entity : EVERY_ENTITY;
}

/** Whether somebody looks at a row: at what is shared, and at what belongs to an entity where they hold a role. */
function isSeenBy(actor: Actor): (row: MasterRow) => boolean {
  const entities = entitiesOf(actor, KEEPERS);
  return (row) => {
    const entity = entityOf([row]);
    return entities === null || entity === EVERY_ENTITY || entities.includes(entity);
  };
}

/** All rows of a kind that somebody may look at, each with how often its key was changed. */
export async function viewRows({ db }: Pick<Context, 'db'>, actor: Actor, kind: SetupKind) {
  const descriptor = DESCRIPTORS[kind];
  const all = await selectMasterRows(db, descriptor, await selectLedgers(db));
  const rows = all.filter(isSeenBy(actor));
  const revisions = await selectRevisions(db, kind);
  return {
    kind,
    dated: isDated(descriptor),
    rows: rows.map((row) => {
      const key = keyOf(descriptor, row.row);
      return { ...row, key: writeKey(key), revision: revisions.get(recordIdOf(kind, key)) ?? 0 };
    }),
  };
}

/** What was done to a key; to those who may not look at its rows there is none. */
export async function viewRowHistory(
  { db }: Pick<Context, 'db'>,
  actor: Actor,
  kind: SetupKind,
  written: readonly string[],
) {
  const key = readKey(kind, written);
  const rows = await selectKeyRows(db, DESCRIPTORS[kind], key, await selectLedgers(db));
  if (!rows.some(isSeenBy(actor))) throw new Refused('not-found', { what: 'row of that key' });
  return { history: await selectEvents(db, 'setting', recordIdOf(kind, key)) };
}

interface LockedKey extends LockedRecord<SettingState> {
  rows: MasterRow[];
}

/**
 * A key with its rows. Its revision is the number of its events, so rows that came before any event are at 0. It belongs to
 * the entity that its rows and the one to come name.
 */
const keyStore = (
  kind: SetupKind,
  ledgers: Ledgers,
  actor: Actor,
  coming: readonly MasterRow[] = [],
): RecordStore<SettingState, LockedKey, Key> => ({
  async lock(trx, key) {
    const id = recordIdOf(kind, key);
    await lockKey(trx, id);
    const rows = await selectKeyRows(trx, DESCRIPTORS[kind], key, ledgers);
    if (rows.length === 0) return undefined;
    const state = rows.some((r) => r.validTo === null) ? 'in force' : 'ended';
    return {
      id,
      name: id,
      state,
      entity: entityOf([...rows, ...coming]),
      revision: await selectRevision(trx, id),
      people: { owner: await ownerOf(trx, kind, [...rows, ...coming], actor.id) },
      rows,
    };
  },
  save: async () => {},
  exists: () => true,
});

/** A row as it was typed, checked by its kind. */
function checkRow(kind: SetupKind, cells: Record<string, unknown>): Record<string, unknown> {
  return checked(z.strictObject({ row: SETUP_ROWS[kind] as z.ZodObject }), { row: cells }).row;
}

/** Adds a row; where its key has one that holds then, that one is ended the day before, or, for single rows, changed. */
export function addRow(context: Context, actor: Actor, kind: SetupKind, added: AddRow): Promise<FileOutcome> {
  const row = { row: checkRow(kind, added.row), validFrom: added.validFrom, validTo: added.validTo };
  return inTransaction(context, async (trx) =>
    putRow(context, trx, actor, kind, row, added.revision, await selectLedgers(trx)),
  );
}

/** Puts a row where it belongs, and says what that came to. `revision: null` takes the key as it is. */
export async function putRow(
  context: Context,
  trx: Db,
  actor: Actor,
  kind: SetupKind,
  row: MasterRow,
  revision: number | null,
  ledgers: Ledgers,
): Promise<FileOutcome> {
  const descriptor = DESCRIPTORS[kind];
  const key = keyOf(descriptor, row.row);
  await lockKey(trx, recordIdOf(kind, key));
  const rows = await selectKeyRows(trx, descriptor, key, ledgers);
  if (kind === 'entity-terms') await assertAccounts(trx, row, key);
  if (rows.filter(isSeenBy(actor)).some((r) => canonical(r) === canonical(row))) return 'unchanged';
  try {
    if (rows.length === 0) {
      if (revision !== null && revision !== 0) throw await notThere(trx, recordIdOf(kind, key));
      return await birth(context, trx, actor, kind, key, row, ledgers);
    }
    return await change(context, trx, actor, kind, { key, row, rows, revision }, ledgers);
  } catch (error) {
    throw stored(error, key);
  }
}

/** A row was seen that is not there. */
const notThere = async (trx: Db, id: string): Promise<Refused> =>
  new Refused('stale', { what: 'setting', revision: 0, state: null, changes: await selectEvents(trx, 'setting', id) });

/** The accounts an entity names for payables, clearing and the like have to be there; a journal is too late to find out. */
async function assertAccounts(trx: Db, { row }: MasterRow, key: Key): Promise<void> {
  const there = new Set(await selectAccountCodes(trx));
  const named = [...Object.values(row.accounts as object), ...Object.values(row.cards as object)] as string[];
  const missing = named.find((code) => !there.has(code));
  if (missing) throw new Refused('row-refers', { key: key.join(' '), to: `account ${missing}` });
}

async function birth(
  context: Context,
  trx: Db,
  actor: Actor,
  kind: SetupKind,
  key: Key,
  row: MasterRow,
  ledgers: Ledgers,
): Promise<FileOutcome> {
  const people = { owner: await ownerOf(trx, kind, [row], actor.id) };
  await performBirth(
    context,
    trx,
    { lifecycle: settingLifecycle, act: 'add', actor, entity: entityOf([row]), people },
    async () => {
      await insertMasterRow(trx, DESCRIPTORS[kind], row, ledgers);
      const jobs = await followUps(trx, kind, DESCRIPTORS[kind], key, row.row);
      const state = row.validTo === null ? ('in force' as const) : ('ended' as const);
      return { id: recordIdOf(kind, key), state, result: undefined, facts: factsOf(row), jobs };
    },
  );
  return 'added';
}

interface Change {
  key: Key;
  row: MasterRow;
  rows: readonly MasterRow[];
  revision: number | null;
}

async function change(
  context: Context,
  trx: Db,
  actor: Actor,
  kind: SetupKind,
  { key, row, rows, revision }: Change,
  ledgers: Ledgers,
): Promise<FileOutcome> {
  const descriptor = DESCRIPTORS[kind];
  const { validity } = descriptor;
  const act = validity === 'dated' ? 'follow' : 'change';
  const store = keyStore(kind, ledgers, actor, [row]);
  const wanted = { lifecycle: settingLifecycle, store, act, key, actor, revision } as const;
  return perform(context, trx, wanted, async () => {
    if (validity !== 'dated') assertMayChange(validity.changes, rows[0]!, row, key);
    if (validity === 'dated') await follow(trx, descriptor, key, row, rows, ledgers);
    else await updateMasterRow(trx, descriptor, key, row.row, ledgers);
    const jobs = await followUps(trx, kind, descriptor, key, row.row);
    const result = act === 'follow' ? ('follows' as const) : ('changed' as const);
    return { result, facts: { ...factsOf(row), from: factsOf(rows.at(-1)!) }, jobs };
  });
}

/** Ends the row that holds when the new one begins, the day before. The database refuses one that overlaps another. */
async function follow(
  trx: Db,
  descriptor: Descriptor,
  key: Key,
  row: MasterRow,
  rows: readonly MasterRow[],
  ledgers: Ledgers,
): Promise<void> {
  const begins = row.validFrom;
  if (begins !== null && rows.some((r) => holds(r, begins)))
    await endMasterRow(trx, descriptor, key, addDays(begins, -1));
  await insertMasterRow(trx, descriptor, row, ledgers);
}

const holds = ({ validFrom, validTo }: MasterRow, day: string): boolean =>
  (validFrom === null || validFrom <= day) && (validTo === null || day <= validTo);

function assertMayChange(changes: readonly string[], before: MasterRow, now: MasterRow, key: Key): void {
  const fixed = Object.keys(now.row).filter((f) => !changes.includes(f));
  const moved = fixed.some((f) => canonical(before.row[f] ?? null) !== canonical(now.row[f] ?? null));
  const redated = before.validFrom !== now.validFrom || before.validTo !== now.validTo;
  if (moved || redated || changes.length === 0) throw new Refused('row-used', { key: key.join(' ') });
}

const factsOf = ({ row, validFrom, validTo }: MasterRow) => ({ row, validFrom, validTo });

/** Ends the row of a key on a day; nothing follows it until somebody adds a row. */
export function endRow(
  context: Context,
  actor: Actor,
  kind: SetupKind,
  { key: written, on, revision }: EndRow,
): Promise<void> {
  const descriptor = DESCRIPTORS[kind];
  const key = readKey(kind, written);
  return inTransaction(context, async (trx) => {
    const ledgers = await selectLedgers(trx);
    const wanted = {
      lifecycle: settingLifecycle,
      store: keyStore(kind, ledgers, actor),
      act: 'end',
      key,
      actor,
      revision,
    } as const;
    await perform(context, trx, wanted, async ({ rows }) => {
      if (!hasValidity(descriptor) || !rows.some((r) => holds(r, on)))
        throw new Refused('not-found', { what: 'row that holds on that day' });
      await endMasterRow(trx, descriptor, key, on);
      const jobs: Asked[] = await followUps(trx, kind, descriptor, key, rows.at(-1)!.row);
      return { result: undefined, facts: { on }, jobs };
    });
  });
}

/** What the database refuses of a row, as an answer that names the key or the field. */
export function stored(error: unknown, key: Key): unknown {
  if (error instanceof UnstorableField)
    return invalid({ path: ['row', error.field], message: 'does not have the decimals of its currency' });
  const { code, constraint } = error as { code?: string; constraint?: string };
  if (code === '23P01' || code === '23505') return new Refused('row-overlaps', { key: key.join(' ') });
  if (code === '23503') return new Refused('row-refers', { key: key.join(' '), to: constraint });
  if (code === '23514') return new Refused('row-impossible', { key: key.join(' ') });
  return error;
}
