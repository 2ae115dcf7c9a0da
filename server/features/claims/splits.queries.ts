import type { SplitsAnswer } from '../../../contract/beside.ts';
import { ENDED } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { ClaimRow } from '../../records/claims/claims.queries.ts';

const MOST_LINES = 50;

/** Lines of other claims of the same person in the entity that were divided, the latest submitted first; amounts would fit no other line. */
export async function selectEarlierSplits(
  db: Db,
  claim: Pick<ClaimRow, 'id' | 'claimant_id' | 'entity_id'>,
): Promise<SplitsAnswer['earlier']> {
  return db('lines as l')
    .join('claims as c', (on) => on.on('c.id', 'l.claim_id').andOn('c.submitted_version', 'l.version'))
    .where({ 'c.claimant_id': claim.claimant_id, 'c.entity_id': claim.entity_id })
    .whereNot('c.id', String(claim.id))
    .whereNotIn('c.state', [...ENDED])
    .whereIn('l.split_by', ['percent', 'weight', 'equal'])
    .orderBy([{ column: 'c.submitted_on', order: 'desc' }, { column: 'c.id', order: 'desc' }, 'l.position'])
    .limit(MOST_LINES)
    .select('c.number as claim', 'l.id as line', 'l.date', 'l.category')
    .select(
      db.raw(`jsonb_strip_nulls(jsonb_build_object('by', l.split_by, 'unit', l.split_unit)) || jsonb_build_object('shares',
        (select jsonb_agg(jsonb_build_object('coding', s.coding, 'value', s.value) order by s.position) from shares s
         where s.claim_id = l.claim_id and s.version = l.version and s.line_id = l.id and s.item_id is null)) as split`),
    );
}
