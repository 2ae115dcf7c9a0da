import type { Coding, Plan } from '../../../core/documents/case.schema.ts';
import type { ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './versionKey.ts';
import type { ItemRow, LineRow, ShareRow, TaxEntryRow } from './lines.queries.ts';

export interface ClaimRow {
  id: bigint;
  number: string;
  version: number;
  /** The newest version that was submitted; null for a claim that never was. */
  submitted_version: number | null;
  revision: number;
  entity_id: string;
  claimant_id: string;
  preparer_id: string;
  /** Who decides about it now; everybody who is or was asked to; who is asked about codes that finance gave it. */
  deciders: string[];
  approvers: string[];
  code_owners: string[];
  /** Who decided last, and which revision that made. */
  decided_by: string | null;
  decided_in: number | null;
  currency: string;
  state: ClaimState;
  purpose: string;
  trip_from: string | null;
  trip_to: string | null;
  country: string | null;
  place: string | null;
  reference: string | null;
  note: string | null;
  finance_note: string | null;
  begun_on: string;
  submitted_on: string | null;
  coding: Coding;
  plan: Plan | null;
  cleared_by: string | null;
  last_line: number;
  /** What is paid of it, as it was last assessed; minor units, null where it cannot be computed. */
  to_pay: bigint | null;
  hold_reason: string | null;
  hold_told: string | null;
  hold_until: string | null;
  /** Who is asked something they have not answered; how many questions wait, and how many are answered. */
  questioned: string[];
  waiting: number;
  answered: number;
  /** When it was drawn for a full look, out of others that were cleared together. */
  drawn_at: Date | null;
  /** Of its entity: whose day it is there. */
  time_zone: string;
}
const TIME_ZONE = '(select e.time_zone from entities e where e.id = claims.entity_id) as time_zone';
const claimRow = (db: Db, number: string) => db('claims').where({ number }).select('claims.*', db.raw(TIME_ZONE));

export const selectClaim = (db: Db, number: string): Promise<ClaimRow | undefined> => claimRow(db, number).first();

/** The claim, locked until the transaction ends: every act on a claim begins with it, so acts follow one another. */
export const lockClaimRow = (trx: Db, number: string): Promise<ClaimRow | undefined> =>
  claimRow(trx, number).forUpdate().first();

export async function updateClaim(trx: Db, id: bigint, changes: Record<string, unknown>): Promise<void> {
  await trx('claims').where({ id }).update(changes);
}

/** The number of a new claim; numbers may be skipped, never used twice. */
export async function nextClaimNumber(trx: Db): Promise<string> {
  const { rows } = await trx.raw(`select nextval('claim_numbers') as n`);
  return `C-${rows[0].n}`;
}

export interface NewClaim {
  number: string;
  entity_id: string;
  claimant_id: string;
  preparer_id: string;
  currency: string;
  purpose: string;
  trip_from: string | null;
  trip_to: string | null;
  country: string | null;
  place: string | null;
  begun_on: string;
  coding: Coding;
  plan: Plan | null;
}
export async function insertClaim(trx: Db, claim: NewClaim): Promise<ClaimRow> {
  const [row] = await trx('claims')
    .insert({
      ...claim,
      coding: JSON.stringify(claim.coding),
      plan: claim.plan && JSON.stringify(claim.plan),
      state: 'draft',
    })
    .returning(['*', trx.raw(TIME_ZONE)] as never);
  await trx('claim_versions').insert({ claim_id: row.id, version: 1 });
  return row;
}

/** The columns of a row, each named: one that is added to the row is missed here by the compiler. */
const named = <Row>(columns: Record<keyof Row, true>): string => Object.keys(columns).join(', ');
const COPIED = {
  lines: named<LineRow & { before_pair: unknown }>({
    ...{
      id: true,
      position: true,
      date: true,
      category: true,
      nights: true,
      attendees: true,
      fields: true,
      paid_by: true,
    },
    ...{ card: true, amount: true, currency: true, country: true, merchant: true, description: true, personal: true },
    ...{
      rate_kind: true,
      rate_value: true,
      settled_amount: true,
      settled_currency: true,
      receipt_id: true,
      charge_id: true,
    },
    ...{
      before_pair: true,
      coding: true,
      split_by: true,
      split_unit: true,
      quantity: true,
      estimate: true,
      journey: true,
    },
    ...{ stay: true, rebill: true },
  }),
  items: named<ItemRow & { position: unknown }>({
    ...{ line_id: true, id: true, position: true, category: true, amount: true, description: true, personal: true },
    ...{ coding: true, split_by: true, split_unit: true, quantity: true },
  }),
  tax_entries: named<TaxEntryRow & { position: unknown }>({
    ...{ line_id: true, item_id: true, position: true, code: true, gross: true, tax: true },
  }),
  shares: named<ShareRow & { position: unknown }>({
    ...{ line_id: true, item_id: true, position: true, coding: true, value: true },
  }),
  claim_advances: 'position, advance_id, up_to',
  claim_explanations: 'position, line_id, code, about, text',
} as const;

/** Opens the next version of a claim with everything the last one holds; the last one stays as it is. */
export async function copyVersion(trx: Db, { claim_id, version }: VersionKey): Promise<void> {
  await trx('claim_versions').insert({ claim_id, version: version + 1 });
  for (const [table, columns] of Object.entries(COPIED))
    await trx.raw(
      `insert into ${table} (claim_id, version, ${columns}) select claim_id, version + 1, ${columns} from ${table} where claim_id = ? and version = ?`,
      [String(claim_id), version],
    );
}

/** Keeps a version as it was submitted; the database refuses to change it afterwards. */
/** What was frozen of a version when it was submitted; undefined of one that never was. */
export async function selectSubmitted<Frozen>(db: Db, key: VersionKey): Promise<Frozen | undefined> {
  const row = await db('claim_versions').where(key).first('submitted');
  return row?.submitted ?? undefined;
}

export async function freezeVersion(trx: Db, key: VersionKey, submitted: unknown, at: Date): Promise<void> {
  await trx('claim_versions')
    .where({ claim_id: key.claim_id, version: key.version })
    .update({ submitted: JSON.stringify(submitted), submitted_at: at });
}

export function selectWantedAdvances(db: Db, key: VersionKey): Promise<{ advance_id: string; up_to: bigint | null }[]> {
  return db('claim_advances').where(key).orderBy('position').select('advance_id', 'up_to');
}

/** Sets the advances a version is set against, in their order. */
export async function replaceWantedAdvances(
  trx: Db,
  key: VersionKey,
  wanted: readonly { advance_id: string; up_to: bigint | null }[],
): Promise<void> {
  await trx('claim_advances').where(key).delete();
  const rows = wanted.map((a, position) => ({ claim_id: key.claim_id, version: key.version, position, ...a }));
  if (rows.length > 0) await trx('claim_advances').insert(rows);
}

export interface ExplanationRow {
  line_id: string | null;
  code: string;
  about: string;
  text: string;
}
export const selectExplanations = (db: Db, key: VersionKey): Promise<ExplanationRow[]> =>
  db('claim_explanations').where(key).orderBy('position').select('line_id', 'code', 'about', 'text');

/** Writes what the claimant says to findings anew. */
export async function replaceExplanations(trx: Db, key: VersionKey, rows: readonly ExplanationRow[]): Promise<void> {
  await trx('claim_explanations').where(key).delete();
  if (rows.length > 0)
    await trx('claim_explanations').insert(rows.map((row, position) => ({ ...key, position, ...row })));
}

/** Where claims on hold stand in the queue: last. */
const ON_HOLD = 2;
/** Claims in review that stand as on hold, and whose day has come. */
export const selectHoldsOver = (db: Db, now: Date): Promise<string[]> =>
  db('claims')
    .join('entities as e', 'e.id', 'claims.entity_id')
    .where({ state: 'in review', priority: ON_HOLD })
    .whereRaw('hold_until <= (?::timestamptz at time zone e.time_zone)::date', [now])
    .pluck('number');
