import { fromMinor } from '../../../core/numbers/amount.ts';
import type { ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';

/** A claim as one row of a list; amounts are decimal strings. */
export interface ListedClaim {
  number: string;
  version: number;
  revision: number;
  state: ClaimState;
  entity: string;
  claimant: string;
  purpose: string;
  submittedOn: string | null;
  currency: string;
  toPay: string | null;
  makers: string[];
  ledgerCurrency: string;
  atRisk: string;
  ties: Record<string, string>;
  stops: number;
  asks: number;
  holdUntil: string | null;
  /** Questions that were sent and not answered, and those that were. */
  waiting: number;
  answered: number;
}

const PAGE = 50;

const listed = (db: Db) =>
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
      'c.waiting',
      'c.answered',
      'c.priority',
      db.raw('array[c.claimant_id, c.preparer_id] as makers'),
    );

interface RawRow extends Omit<ListedClaim, 'toPay' | 'atRisk'> {
  id: bigint;
  priority: bigint;
  to_pay: bigint | null;
  at_risk: bigint;
}

const write = ({ to_pay, at_risk, id: _, priority: __, ...row }: RawRow): ListedClaim => ({
  ...row,
  toPay: to_pay === null ? null : fromMinor(to_pay, row.currency),
  atRisk: fromMinor(at_risk, row.ledgerCurrency),
});

export interface Page {
  state: ClaimState | 'any';
  q?: string | undefined;
  after: string | null;
  /** Only claims of these entities; null for all. */
  entities: readonly string[] | null;
}

/** A page of a state's submitted claims by attention, then age; `next` is the key of the page after it, null on the last. */
export async function selectClaimPage(
  db: Db,
  { state, q, after, entities }: Page,
): Promise<{ rows: ListedClaim[]; next: string | null }> {
  const query = listed(db)
    .where((of) => (state === 'any' ? of.whereNot('c.state', 'draft') : of.where('c.state', state)))
    .whereNotNull('c.submitted_version')
    .orderBy(['c.priority', 'c.submitted_on', 'c.id'])
    .limit(PAGE + 1);
  if (entities) query.whereIn('c.entity_id', [...entities]);
  for (const word of q?.toLowerCase().split(/\s+/).filter(Boolean) ?? [])
    query.whereLike('c.search', `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`);
  if (after) query.whereRaw('(c.priority, c.submitted_on, c.id) > (?, ?, ?)', readKey(after));
  const rows: RawRow[] = await query;
  const page = rows.slice(0, PAGE);
  return { rows: page.map(write), next: rows.length > PAGE ? writeKey(page.at(-1)!) : null };
}

const writeKey = (row: RawRow): string => [row.priority, row.submittedOn, row.id].join('/');

/** The parts of a key, whose form the contract has seen to. */
const readKey = (text: string) => text.split('/');

/** How many submitted claims there are of each state, from counts the database keeps. */
export async function selectStateCounts(db: Db, entities: readonly string[] | null): Promise<Record<string, number>> {
  const query = db('claim_counts')
    .whereNot('state', 'draft')
    .groupBy('state')
    .select('state', db.raw('sum(count)::int as count'));
  if (entities) query.whereIn('entity_id', [...entities]);
  const rows = await query;
  return Object.fromEntries(rows.filter((row) => row.count > 0).map((row) => [row.state, row.count]));
}

/** Claims a person makes or has made for them, newest first. */
export async function selectOwnClaims(db: Db, personId: string): Promise<ListedClaim[]> {
  const rows: RawRow[] = await listed(db)
    .where((where) => where.where('c.claimant_id', personId).orWhere('c.preparer_id', personId))
    .orderBy('c.id', 'desc');
  return rows.map(write);
}
