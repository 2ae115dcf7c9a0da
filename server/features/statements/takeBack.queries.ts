import type { StatementState } from '../../../core/workflow/lifecycles/gathering.ts';
import type { Db } from '../../platform/db/connect.ts';
import { lockCard } from './statements.queries.ts';

export interface LockedStatement {
  name: string;
  state: StatementState;
  /** Of its card; null when it is of none. */
  entity: string | null;
  holder: string | null;
}
/** A statement, locked together with its card, so that nothing is imported for that meanwhile. */
export async function lockStatement(trx: Db, id: bigint): Promise<LockedStatement | undefined> {
  const found = await trx('statements').where({ id }).first('card_id');
  if (found?.card_id) await lockCard(trx, found.card_id);
  return trx('statements as s')
    .leftJoin('cards as c', 'c.id', 's.card_id')
    .where({ 's.id': id })
    .forUpdate('s')
    .first('s.name', 's.state', 'c.entity_id as entity', 'c.holder_id as holder');
}

export async function saveStatementState(trx: Db, id: string, state: StatementState): Promise<void> {
  await trx('statements').where({ id }).update({ state });
}

/** The charges that came by this statement and by no other. */
export async function selectChargesOfOnly(trx: Db, id: bigint): Promise<string[]> {
  const rows = await trx('statement_charges as s')
    .where({ statement_id: id })
    .whereNotExists(
      trx('statement_charges as o').whereRaw('o.charge_id = s.charge_id and o.statement_id <> s.statement_id'),
    )
    .orderBy('charge_id')
    .select('charge_id');
  return rows.map((r) => String(r.charge_id));
}

/** The claims, of any state and version, on which some of the charges stand, and how many are marked. */
export async function selectUsesOf(trx: Db, charges: readonly string[]): Promise<{ claims: string[]; marked: number }> {
  const ids = [[...charges]];
  const claims = await trx('lines as l')
    .join('claims as c', 'c.id', 'l.claim_id')
    .whereRaw('l.charge_id = any(?::bigint[])', ids)
    .distinct('c.number')
    .orderBy('c.number');
  const [{ marked }] = await trx('charge_marks')
    .whereRaw(`charge_id = any(?::bigint[]) and state <> 'unmarked'`, ids)
    .select(trx.raw('count(*)::int as marked'));
  return { claims: claims.map((c) => c.number), marked };
}

/** Takes the statement off all its charges, and removes those that came by it alone. */
export async function removeCharges(trx: Db, statement: bigint, charges: readonly string[]): Promise<void> {
  await trx('statement_charges').where({ statement_id: statement }).delete();
  await trx('charges')
    .whereRaw('id = any(?::bigint[])', [[...charges]])
    .delete();
}
