import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './claims.queries.ts';

/** A claim as one row of a list; amounts are decimal strings. */
export interface QueueRow {
  id: bigint;
  number: string;
  version: number;
  revision: number;
  state: string;
  entity: string;
  claimant: string;
  purpose: string;
  submittedOn: string | null;
  currency: string;
  toPay: string | null;
  ledgerCurrency: string;
  atRisk: string;
  ties: Record<string, string>;
  stops: number;
  asks: number;
  holdUntil: string | null;
  attention: number;
}

const PAGE = 50;

const queue = (db: Db) =>
  db('claims as c')
    .join('people as p', 'p.id', 'c.claimant_id')
    .join('entities as e', 'e.id', 'c.entity_id')
    .select(
      'c.id',
      'c.number',
      'c.version',
      'c.revision',
      'c.state',
      'c.entity_id as entity',
      'p.name as claimant',
      'c.purpose',
      'c.submitted_on as submittedOn',
      'c.currency',
      'c.to_pay',
      'e.currency as ledgerCurrency',
      'c.at_risk',
      'c.ties',
      'c.stops',
      'c.asks',
      'c.hold_until as holdUntil',
      'c.attention',
    );

type RawRow = Omit<QueueRow, 'toPay' | 'atRisk'> & { to_pay: bigint | null; at_risk: bigint };

const write = ({ to_pay, at_risk, ...row }: RawRow): QueueRow => ({
  ...row,
  toPay: to_pay === null ? null : fromMinor(to_pay, row.currency),
  atRisk: fromMinor(at_risk, row.ledgerCurrency),
});

export interface Page {
  state: string;
  q?: string | undefined;
  after: string | null;
}

/** A page of a state's claims by attention, then age; `next` is the key of the page after it. */
export async function selectClaimPage(
  db: Db,
  { state, q, after }: Page,
): Promise<{ rows: QueueRow[]; next: string | null }> {
  const query = queue(db)
    .where('c.state', state)
    .orderByRaw('c.attention desc, c.submitted_on, c.id')
    .limit(PAGE + 1);
  if (q)
    query.andWhere((where) =>
      where
        .whereILike('c.number', `%${escaped(q)}%`)
        .orWhereILike('p.name', `%${escaped(q)}%`)
        .orWhereILike('c.purpose', `%${escaped(q)}%`),
    );
  const key = readKey(after);
  if (key)
    query.whereRaw('(-c.attention, c.submitted_on, c.id) > (?, ?, ?)', [-key.attention, key.submittedOn, key.id]);
  const rows: RawRow[] = await query;
  const page = rows.slice(0, PAGE).map(write);
  return { rows: page, next: rows.length > PAGE ? writeKey(page.at(-1)!) : null };
}

const escaped = (text: string): string => text.replace(/[\\%_]/g, (c) => `\\${c}`);
const writeKey = (row: QueueRow): string => [row.attention, row.submittedOn, row.id].join('/');

function readKey(text: string | null) {
  const match = /^(-?\d+)\/(\d{4}-\d{2}-\d{2})\/(\d+)$/.exec(text ?? '');
  return match ? { attention: Number(match[1]), submittedOn: match[2]!, id: match[3]! } : null;
}

export async function selectStateCounts(db: Db): Promise<Record<string, number>> {
  const rows = await db('claims').groupBy('state').select('state', db.raw('count(*)::int as count'));
  return Object.fromEntries(rows.map((row) => [row.state, row.count]));
}

export async function selectOwnClaims(db: Db, personId: string): Promise<QueueRow[]> {
  const rows: RawRow[] = await queue(db)
    .where((where) => where.where('c.claimant_id', personId).orWhere('c.preparer_id', personId))
    .orderBy('c.id', 'desc')
    .limit(200);
  return rows.map(write);
}

export interface ClaimHeader {
  number: string;
  version: number;
  revision: number;
  state: string;
  entity: string;
  entityName: string;
  claimant: string;
  claimantId: string;
  claimantKind: string;
  preparer: string;
  approver: string | null;
  clearedBy: string | null;
  currency: string;
  ledgerCurrency: string;
  purpose: string;
  tripFrom: string | null;
  tripTo: string | null;
  submittedOn: string | null;
  holdReason: string | null;
  holdUntil: string | null;
}

export function selectClaimHeader(db: Db, id: bigint): Promise<ClaimHeader> {
  return db('claims as c')
    .join('people as p', 'p.id', 'c.claimant_id')
    .join('people as b', 'b.id', 'c.preparer_id')
    .leftJoin('people as a', 'a.id', 'c.approver_id')
    .leftJoin('people as r', 'r.id', 'c.cleared_by')
    .join('entities as e', 'e.id', 'c.entity_id')
    .where({ 'c.id': id })
    .first(
      'c.number',
      'c.version',
      'c.revision',
      'c.state',
      'c.entity_id as entity',
      'e.name as entityName',
      'p.name as claimant',
      'p.id as claimantId',
      'p.kind as claimantKind',
      'b.name as preparer',
      'a.name as approver',
      'r.name as clearedBy',
      'c.currency',
      'e.currency as ledgerCurrency',
      'c.purpose',
      'c.trip_from as tripFrom',
      'c.trip_to as tripTo',
      'c.submitted_on as submittedOn',
      'c.hold_reason as holdReason',
      'c.hold_until as holdUntil',
    );
}

export function selectJournalsOfClaim(
  db: Db,
  claimId: bigint,
): Promise<{ number: string; kind: string; date: string; live: boolean }[]> {
  return db('journals').where({ claim_id: claimId }).orderBy('id').select('number', 'kind', 'date', 'live');
}

/** The claim as it was submitted, before finance corrected anything. */
export async function selectSubmitted(db: Db, key: VersionKey): Promise<unknown> {
  const row = await db('claim_versions').where(key).first('submitted');
  return row?.submitted ?? null;
}
