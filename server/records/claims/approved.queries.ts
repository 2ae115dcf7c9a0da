import type { Claim } from '../../../core/documents/case.schema.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './versionKey.ts';

/** What a version came to when it was approved: due in minor units, charges by "dimension code" as decimal strings. */
export interface ApprovedFigures {
  due: bigint | null;
  charged: Record<string, string>;
  claim: Claim;
}

const keyOf = ({ claim_id, version }: VersionKey) => ({ claim_id, version });

export const selectApproved = (db: Db, key: VersionKey): Promise<ApprovedFigures | undefined> =>
  db('approved_figures').where(keyOf(key)).first('due', 'charged', 'claim');

export async function upsertApproved(trx: Db, key: VersionKey, of: ApprovedFigures, at: Date): Promise<void> {
  const { due, charged, claim } = of;
  await trx('approved_figures')
    .insert({ ...keyOf(key), at, due, charged: JSON.stringify(charged), claim: JSON.stringify(claim) })
    .onConflict(['claim_id', 'version'])
    .merge();
}
