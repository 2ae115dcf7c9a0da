import { canonical } from '../../../core/numbers/canonical.ts';
import { IN_PREPARATION, type ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import type { Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { repeatable } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { postingDates } from '../../records/book/postingDate.ts';
import {
  assessClaim,
  keepAssessment,
  keptClaim,
  preparedSubject,
  standingOf,
  subjectAgain,
} from '../../records/claims/assessClaim.ts';
import type { KeptClaim } from '../../records/claims/assessed.ts';
import { selectUsers } from '../../records/claims/assessments.queries.ts';
import { lockClaimRow, updateClaim, type ClaimRow } from '../../records/claims/claims.queries.ts';

/** States whose figures may still change. */
const LIVE: readonly ClaimState[] = ['draft', 'returned', 'with approver', 'in review', 'cleared', 'reversed'];
const AT_A_TIME = 100;

/**
 * Assesses again every claim that was assessed by something which changed, one transaction a claim. It is no act: nobody
 * decides anything, so revision and history stay; marks on comparisons that changed fall away. Doing it twice changes
 * nothing. A claim that cannot be assessed as it is keeps what was last computed of it.
 */
export async function assessAgain(context: Pick<Context, 'db' | 'clock'>, key: string): Promise<void> {
  if (key.startsWith('only:')) return assessOne(context, key.slice('only:'.length));
  for (let after = '0'; ;) {
    const claims = await selectUsers(context.db, key, after, AT_A_TIME);
    for (const { number } of claims) await assessOne(context, number);
    if (claims.length < AT_A_TIME) return;
    after = String(claims.at(-1)!.id);
  }
}

function assessOne({ db, clock }: Pick<Context, 'db' | 'clock'>, number: string): Promise<void> {
  return repeatable({ db }, async (trx) => {
    const row = await lockClaimRow(trx, number);
    if (!row || !LIVE.includes(row.state)) return;
    const kept = await keptClaim(trx, { claim_id: row.id, version: row.version });
    const assessed = await assessedNow(trx, { clock }, row, kept);
    if (assessed === null || same(kept, assessed)) return;
    const keeping = { clock, revision: row.revision, standing: standingOf(row, clock), before: kept };
    await updateClaim(trx, row.id, await keepAssessment(trx, row, assessed, keeping));
  });
}

async function assessedNow(trx: Db, { clock }: Pick<Context, 'clock'>, row: ClaimRow, kept: KeptClaim) {
  const { today, posting: date } = await postingDates(trx, clock, row.entity_id);
  const subject = IN_PREPARATION.includes(row.state)
    ? await preparedSubject(trx, row, today)
    : await subjectAgain(trx, row, kept);
  try {
    return await assessClaim(trx, row, subject, date);
  } catch (error) {
    if (error instanceof Refused && error.code === 'invalid') return null;
    throw error;
  }
}

const same = (kept: KeptClaim, now: Pick<KeptClaim, 'document' | 'assessment' | 'ties' | 'evidence'>): boolean =>
  (['document', 'assessment', 'ties', 'evidence'] as const).every(
    (part) => canonical(kept[part]) === canonical(now[part]),
  );
