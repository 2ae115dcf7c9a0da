import type { Db } from '../../platform/db/connect.ts';
import type { ClaimRow } from '../claims/claims.queries.ts';

/** The number of a new claim; numbers may be skipped, never used twice. */
export async function nextClaimNumber(trx: Db): Promise<string> {
  const { rows } = await trx.raw(`select nextval('claim_numbers') as n`);
  return `C-${rows[0].n}`;
}

export interface PersonRow {
  id: string;
  entity_id: string;
  currency: string;
  kind: 'employee' | 'contractor';
}
export const selectPerson = (db: Db, id: string): Promise<PersonRow> => db('people').where({ id }).first();

export interface NewClaim {
  number: string;
  entity_id: string;
  claimant_id: string;
  preparer_id: string;
  currency: string;
  purpose: string;
  coding: string;
}
export async function insertClaim(trx: Db, claim: NewClaim): Promise<bigint> {
  const [{ id }] = await trx('claims')
    .insert({ ...claim, state: 'draft' })
    .returning('id');
  await trx('claim_versions').insert({ claim_id: id, version: 1 });
  return id;
}

/** The coding of the person's newest claim, with which a new one begins. */
export async function selectUsualCoding(db: Db, personId: string): Promise<Record<string, string>> {
  const row = await db('claims').where({ claimant_id: personId }).orderBy('id', 'desc').first('coding');
  return row?.coding ?? {};
}

/** The person's drafts, newest first. */
export const selectDrafts = (db: Db, personId: string): Promise<(ClaimRow & { id: bigint })[]> =>
  db('claims').where({ claimant_id: personId, state: 'draft' }).orderBy('id', 'desc').limit(100);

export interface DraftLine {
  claim_id: bigint;
  number: string;
  id: string;
  position: number;
  date: string;
  category: string | null;
  paid_by: 'own' | 'card' | 'central';
  card: string | null;
  amount: bigint;
  currency: string;
  merchant: string | null;
  description: string | null;
  personal: boolean;
  rate_kind: string;
  rate_value: string | null;
  settled_amount: bigint | null;
  settled_currency: string | null;
  receipt_id: bigint | null;
  charge_id: bigint | null;
  before_pair: Record<string, unknown> | null;
}
/** The lines of a person's drafts. */
export function selectDraftLines(db: Db, personId: string): Promise<DraftLine[]> {
  return db('lines as l')
    .join('claims as c', (join) => join.on('c.id', 'l.claim_id').andOn('c.version', 'l.version'))
    .where({ 'c.claimant_id': personId, 'c.state': 'draft' })
    .orderBy(['c.id', 'l.position'])
    .select('l.*', 'c.number');
}

export interface ChargeLine {
  claim_id: bigint;
  version: number;
  id: string;
  state: string;
  amount: bigint;
  currency: string;
}
/** The lines that carry a charge, those of submitted claims first. */
export function selectLinesOfCharge(trx: Db, chargeId: bigint): Promise<ChargeLine[]> {
  return trx('lines as l')
    .join('claims as c', (join) => join.on('c.id', 'l.claim_id').andOn('c.version', 'l.version'))
    .where('l.charge_id', String(chargeId))
    .whereNotIn('c.state', ['withdrawn', 'declined'])
    .orderByRaw(`c.state = 'draft', c.id, l.position`)
    .select('l.claim_id', 'l.version', 'l.id', 'c.state', 'l.amount', 'l.currency');
}

export async function updateLine(
  trx: Db,
  key: { claim_id: bigint; version: number; id: string },
  columns: Record<string, unknown>,
): Promise<void> {
  await trx('lines').where(key).update(columns);
}
export async function deleteLine(trx: Db, key: { claim_id: bigint; version: number; id: string }): Promise<void> {
  const { claim_id, version, id } = key;
  for (const table of ['tie_marks', 'queries']) await trx(table).where({ claim_id, version, line_id: id }).delete();
  await trx('lines').where(key).delete();
}

/** The charge a line stands on; null for none, and for a line that is not there. */
export async function selectChargeOfLine(
  trx: Db,
  key: { claim_id: bigint; version: number; id: string },
): Promise<string | null> {
  const charge = (await trx('lines').where(key).first('charge_id'))?.charge_id ?? null;
  return charge === null ? null : String(charge);
}
