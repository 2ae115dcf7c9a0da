import { IN_PREPARATION } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { ClaimRow } from '../../records/claims/claims.queries.ts';

const MOST_DRAFTS = 100;
/** The person's claims in preparation, newest first. */
export const selectDrafts = (db: Db, personId: string): Promise<ClaimRow[]> =>
  db('claims')
    .where({ claimant_id: personId })
    .whereIn('state', [...IN_PREPARATION])
    .orderBy('id', 'desc')
    .limit(MOST_DRAFTS);

export interface DraftLine {
  claim_id: bigint;
  version: number;
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
/** How a line is named among those of several claims. */
export const refOf = (line: Pick<DraftLine, 'number' | 'id'>): string => `${line.number}/${line.id}`;

/** The lines of a person's claims in preparation. */
export function selectDraftLines(db: Db, personId: string): Promise<DraftLine[]> {
  return db('lines as l')
    .join('claims as c', (join) => join.on('c.id', 'l.claim_id').andOn('c.version', 'l.version'))
    .where({ 'c.claimant_id': personId })
    .whereIn('c.state', [...IN_PREPARATION])
    .orderBy(['c.id', 'l.position'])
    .select('l.*', 'c.number');
}
