import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Claim } from '../../../core/documents/case.schema.ts';
import { ENDED } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from '../../records/claims/versionKey.ts';

/** A version that went out, with what was last computed of it. */
export interface SubmittedVersion {
  claim: Claim;
  assessment: Assessment;
}
export const selectVersion = (db: Db, key: VersionKey): Promise<SubmittedVersion | undefined> =>
  db('claim_versions as v')
    .join('assessments as a', (on) => on.on('a.claim_id', 'v.claim_id').andOn('a.version', 'v.version'))
    .where({ 'v.claim_id': key.claim_id, 'v.version': key.version })
    .whereNotNull('v.submitted')
    .first(db.raw(`v.submitted -> 'claim' as claim, a.result as assessment`));

/** A person in an entity, and from which day on. */
export interface Span {
  person: string;
  entity: string;
  since: string;
}
/** What was computed of the claims somebody submitted in a span, those that ended left out. */
export const selectYear = (db: Db, { person, entity, since }: Span): Promise<SubmittedVersion[]> =>
  db('claims as c')
    .join('assessments as a', (on) => on.on('a.claim_id', 'c.id').andOn('a.version', 'c.submitted_version'))
    .where({ 'c.claimant_id': person, 'c.entity_id': entity })
    .where('c.submitted_on', '>=', since)
    .whereNotIn('c.state', [...ENDED])
    .select(db.raw(`a.document -> 'claim' as claim, a.result as assessment`));

export async function countReturned(db: Db, { person, entity, since }: Span): Promise<number> {
  const row = await db('events as e')
    .join('claims as c', 'c.number', 'e.record_id')
    .where({ 'e.record_kind': 'claim', 'e.kind': 'returned', 'c.claimant_id': person, 'c.entity_id': entity })
    .where('e.at', '>=', since)
    .count({ n: '*' })
    .first();
  return Number(row?.n ?? 0);
}

export interface MerchantLine {
  claim: string;
  line: string;
  date: string;
  merchant: string;
  amount: bigint;
  currency: string;
  state: string;
}
/** The newest lines of other claims of a person at merchants of one claim. */
export const selectSameMerchants = (
  db: Db,
  key: VersionKey,
  { person, entity }: Span,
  most: number,
): Promise<MerchantLine[]> =>
  db('lines as l')
    .join('claims as c', (on) => on.on('c.id', 'l.claim_id').andOn('c.submitted_version', 'l.version'))
    .where({ 'c.claimant_id': person, 'c.entity_id': entity })
    .whereNot('c.id', String(key.claim_id))
    .whereRaw(
      'lower(l.merchant) in (select lower(h.merchant) from lines h where h.claim_id = ? and h.version = ? and h.merchant is not null)',
      [String(key.claim_id), key.version],
    )
    .orderBy('l.date', 'desc')
    .orderBy('c.id', 'desc')
    .limit(most)
    .select('c.number as claim', 'l.id as line', 'l.date', 'l.merchant', 'l.amount', 'l.currency', 'c.state');

export interface BudgetState {
  id: string;
  amount: bigint;
  posted: bigint;
  cleared: bigint;
  reserved: bigint;
}
export const selectBudgetStates = (db: Db, ids: readonly string[]): Promise<BudgetState[]> =>
  db('budgets')
    .whereRaw('id = any(?::bigint[])', [[...ids]])
    .select(db.raw('id::text as id'), 'amount', 'posted', 'cleared', 'reserved');

export interface BudgetUseRow {
  budget: string;
  kind: 'claim' | 'plan' | 'advance';
  id: string;
  who: string | null;
  stage: 'reserved' | 'cleared' | 'posted';
  amount: bigint;
}
/** What each record has of some budgets, by stage, the largest first; what came back to 0 is left out. */
export async function selectBudgetUses(db: Db, ids: readonly string[]): Promise<BudgetUseRow[]> {
  const { rows } = await db.raw(
    `select m.budget_id::text as budget, m.source_kind as kind, m.source_id as id, m.stage, sum(m.amount)::bigint as amount,
       coalesce(p.name, q.name) as who
     from budget_movements m left join claims c on m.source_kind = 'claim' and c.number = m.source_id
       left join people p on p.id = c.claimant_id left join plans l on m.source_kind = 'plan' and l.number = m.source_id
       left join people q on q.id = l.claimant_id
     where m.budget_id = any(?::bigint[]) group by 1, 2, 3, 4, p.name, q.name having sum(m.amount) <> 0
     order by sum(m.amount) desc, m.source_id`,
    [[...ids]] as never,
  );
  return rows;
}
