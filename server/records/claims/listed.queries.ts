import { fromMinor } from '../../../core/numbers/amount.ts';
import type { ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';
import { FEW_CLAIMS } from '../../../core/workflow/attention.ts';

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
  clean: boolean;
  drawn: boolean;
  /** How many claims of the same person were handed in before it, counted to a few. */
  earlier: number;
}

/** Claims as rows of a list, to be narrowed and ordered. */
export const listed = (db: Db) =>
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
      db.raw(`'clean' = any(c.facets) and c.state = 'in review' as clean, c.drawn_at is not null as drawn`),
      db.raw(
        `(select count(*)::int from (select 1 from claims x where x.claimant_id = c.claimant_id
          and (x.submitted_on, x.id) < (c.submitted_on, c.id) limit ${FEW_CLAIMS}) s) as earlier`,
      ),
    );

export interface ListedRow extends Omit<ListedClaim, 'toPay' | 'atRisk'> {
  id: bigint;
  priority: bigint;
  to_pay: bigint | null;
  at_risk: bigint;
}

export const writeListed = ({ to_pay, at_risk, id: _, priority: __, ...row }: ListedRow): ListedClaim => ({
  ...row,
  toPay: to_pay === null ? null : fromMinor(to_pay, row.currency),
  atRisk: fromMinor(at_risk, row.ledgerCurrency),
});

interface OfOwn {
  asked: boolean;
  waitsFor: string[];
}

/** Claims a person makes or has made for them, newest first, whose decision they wait for, and whether a question waits for them there. */
export async function selectOwnClaims(db: Db, personId: string): Promise<(ListedClaim & OfOwn)[]> {
  const rows: (ListedRow & OfOwn)[] = await listed(db)
    .select(
      db.raw('coalesce(? = any(c.questioned), false) as asked', [personId]),
      db.raw(`array(select d.name from people d where d.id = any(c.deciders) order by d.name) as "waitsFor"`),
    )
    .where((where) => where.where('c.claimant_id', personId).orWhere('c.preparer_id', personId))
    // drafts that were taken away
    .whereNot((where) => where.where('c.state', 'withdrawn').whereNull('c.submitted_version'))
    .orderBy('c.id', 'desc');
  return rows.map(({ asked, waitsFor, ...row }) => ({ ...writeListed(row), asked, waitsFor }));
}
