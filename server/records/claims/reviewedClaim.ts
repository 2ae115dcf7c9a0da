import { audienceOf } from '../../../core/workflow/audienceOf.ts';
import type { Actor } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { claimFacts } from './claimStore.ts';
import { selectClaim, type ClaimRow } from './claims.queries.ts';

/** A claim for who looks at it for finance, or as an auditor; to everybody else it does not exist there. */
export async function reviewedClaim(db: Db, actor: Actor, number: string): Promise<ClaimRow> {
  const row = await selectClaim(db, number);
  const audience = row ? audienceOf(claimFacts(row), actor) : null;
  if (!row || (audience !== 'finance' && audience !== 'auditor')) throw new Refused('not-found', { what: 'claim' });
  return row;
}
