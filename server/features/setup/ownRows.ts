import type { SetupKind } from '../../../contract/setup.ts';
import type { Db } from '../../platform/db/connect.ts';
import { mayTakeRate } from '../../records/book/rateUse.queries.ts';
import { ownsCode } from './ownRows.queries.ts';
import type { MasterRow } from './setup.queries.ts';

type Row = Record<string, unknown>;

/** The fields of a kind that name a person; whoever stands there does not keep that row alone. */
const NAMES: Partial<Record<SetupKind, readonly string[]>> = {
  people: ['id'],
  roles: ['person'],
  'payee-terms': ['person'],
  substitutes: ['person', 'substitute'],
  cards: ['holder'],
  'dimension-values': ['owner'],
};

/**
 * Whose rows of master data these are, as far as it concerns whoever acts: their id when one of the rows is about
 * themselves, their card, a code or the budget of a code that they own, or a rate that a claim of theirs that is not yet
 * posted may take; otherwise null.
 */
export async function ownerOf(
  db: Db,
  kind: SetupKind,
  rows: readonly MasterRow[],
  person: string,
): Promise<string | null> {
  for (const { row } of rows)
    if (NAMES[kind]?.some((field) => row[field] === person) || (await isOwn(db, kind, row, person))) return person;
  return null;
}

async function isOwn(db: Db, kind: SetupKind, row: Row, person: string): Promise<boolean> {
  if (kind === 'budgets') return ownsCode(db, person, { dimension_id: row.dimension, code: row.code });
  if (kind !== 'rates') return false;
  return mayTakeRate(db, person, { from: String(row.from), to: String(row.to), date: String(row.date) });
}
