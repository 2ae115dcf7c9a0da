import type { Claim } from '../../../core/documents/case.schema.ts';
import { NOTHING_PENDING } from '../../../core/evidence/comparisons/summariseReview.ts';
import { budgetUse } from '../../../core/ledger/budgetUse.ts';
import type { Hold } from '../../../contract/claims.ts';
import type { Mark } from '../../../contract/marks.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { proposedPostingDate } from '../../records/book/postingDate.ts';
import { lockBudgets } from '../../records/budgets/budgets.queries.ts';
import { holdBudget } from '../../records/budgets/holdBudget.ts';
import {
  assessClaim,
  keepAssessment,
  keptClaim,
  standingOf,
  subjectAgain,
  summaryColumns,
} from '../../records/claims/assessClaim.ts';
import { fingerprintOf } from '../../records/claims/assessed.ts';
import { refuseRaised } from '../../records/claims/approved.ts';
import { assertClearable } from '../../records/claims/assertClearable.ts';
import { assessKept } from '../../records/claims/assessKept.ts';
import { actAlone, actOnClaim, type SeenClaim } from '../../records/claims/claimStore.ts';
import { correctedLines } from '../../records/claims/changesOf.ts';
import { selectSubmitted } from '../../records/claims/claims.queries.ts';
import { holdDriven } from '../../records/claims/driven.ts';
import { holdingMarks } from '../../records/claims/holdingMarks.ts';
import { deleteMarks, selectMarks, upsertMark } from '../../records/claims/marks.queries.ts';
import { selectUsedBudgets } from '../../records/claims/uses.queries.ts';
import { budgetsOfPlan, releasePlan, reserveAgain } from '../../records/plans/reservePlan.ts';
import { selectNames } from '../../records/routing/routing.queries.ts';
import { drivenAgain, onlyClaim } from '../../records/claims/usesOf.ts';
import { NO_QUESTIONS, refuseUnasked } from './queries.service.ts';
import { assessAgain } from './reassess.service.ts';

const NO_HOLD = { hold_reason: null, hold_told: null, hold_until: null };

/** Ticks a comparison as seen, waives it with a reason, or takes either back. The claim's figures do not change. */
export function markTie(context: Context, actor: Actor, number: string, mark: Mark): Promise<void> {
  const { revision, line, kind } = mark;
  return actAlone(context, actor, 'mark', { number, revision }, async (trx, claim) => {
    const kept = await keptClaim(trx, claim.at);
    const reason = mark.mark === 'waived' ? mark.reason : null;
    for (const said of saidOf(mark)) {
      const tie = kept.ties.find((t) => t.line === said.line && t.kind === kind);
      if (!tie) throw new Refused('not-found', { what: 'comparison' });
      const cell = { line_id: said.line, kind };
      if (mark.mark === 'none') await deleteMarks(trx, claim.at, [cell]);
      else if (said.about !== fingerprintOf(tie)) throw new Refused('comparison-changed', { line: said.line, kind });
      else {
        const row = { ...claim.at, ...cell, mark: mark.mark, about: said.about, reason };
        await upsertMark(trx, { ...row, by_id: actor.id, at: context.clock.now() });
      }
    }
    const columns = summaryColumns(kept, await selectMarks(trx, claim.at), standingOf(claim.row, context.clock));
    return {
      result: undefined,
      columns,
      facts: { line, tie: kind, mark: mark.mark, ...(mark.also?.length ? { also: mark.also.map((a) => a.line) } : {}) },
      words: reason ? { reason } : null,
    };
  });
}

/** The lines a mark is said of, each with the fingerprint of what was seen there. */
const saidOf = (mark: Mark): { line: string; about?: string }[] => [
  { line: mark.line, ...('about' in mark ? { about: mark.about } : {}) },
  ...(mark.also ?? []),
];

/** Clears a claim for posting: no stop, and every comparison tied, waived or, where nothing can be compared, ticked. */
export async function clearClaim(context: Context, actor: Actor, seen: SeenClaim): Promise<void> {
  try {
    await inTransaction(context, (trx) => clearIn(context, trx, actor, seen));
  } catch (error) {
    // what is found now, and was not when it was last computed, is to be seen where it is dealt with
    if (isFound(error)) await assessAgain(context, onlyClaim(seen.number));
    throw error;
  }
}

/** Whether a clearing was refused for what the claim came to when it was assessed again. */
export const isFound = (error: unknown): boolean =>
  error instanceof Refused && ['ties-open', 'has-stops', 'more-than-approved'].includes(error.code);

/** The same inside a transaction; `more` are facts of how it came about. */
export function clearIn(
  context: Context,
  trx: Db,
  actor: Actor,
  seen: SeenClaim,
  more: Record<string, unknown> = {},
): Promise<void> {
  return actOnClaim(context, trx, { act: 'clear', claim: seen, actor }, async (claim) => {
    const { row, revision, at } = claim;
    await refuseUnasked(trx, claim);
    await refuseUnanswered(trx, row.code_owners);
    const kept = await keptClaim(trx, at);
    const submitted = await selectSubmitted<{ claim: Claim }>(trx, at);
    const plan = kept.claim.plan?.number;
    await lockBudgets(trx, [...(await selectUsedBudgets(trx, row.id)), ...(await budgetsOfPlan(trx, plan))]);
    await holdDriven(trx, row, kept.claim.lines);
    const subject = await subjectAgain(trx, row, kept);
    const date = await proposedPostingDate(trx, context.clock, row.entity_id);
    const assessed = await assessClaim(trx, row, subject, date);
    assertClearable(assessed, holdingMarks(await selectMarks(trx, at), assessed, kept));
    await refuseRaised(trx, claim, assessed);
    const columns = await keepAssessment(trx, row, assessed, {
      clock: context.clock,
      revision,
      standing: NOTHING_PENDING,
      before: kept,
    });
    const ledger = assessed.document.book.entities[0]!.currency;
    const uses = budgetUse(assessed.assessment, assessed.document.claim, assessed.budgets, ledger);
    const holding = {
      source: { kind: 'claim' as const, id: row.number },
      stage: 'cleared' as const,
      at: context.clock.now(),
    };
    const jobs = await holdBudget(trx, holding, uses);
    // from here on the claim counts in its plan's place
    const released = plan ? await releasePlan(context, trx, plan) : [];
    return {
      result: undefined,
      columns: { ...columns, ...NO_QUESTIONS, ...NO_HOLD, drawn_at: null, cleared_by: actor.id },
      facts: { version: row.version, corrected: correctedLines(submitted?.claim ?? null, kept.claim), ...more },
      jobs: [...jobs, ...released, ...drivenAgain(kept.claim)],
    };
  });
}

/** What finance charged to somebody's code after the approval waits for their yes. */
async function refuseUnanswered(trx: Db, owners: readonly string[]): Promise<void> {
  if (owners.length === 0) return;
  const names = await selectNames(trx, owners);
  throw new Refused('owners-asked', { owners: [...names.values()].sort().join(', ') });
}

/** Takes a cleared, or a reversed, claim back into review; what it held of the budgets is free again. */
export function reopenClaim(context: Context, actor: Actor, seen: SeenClaim): Promise<void> {
  return actAlone(context, actor, 'reopen', seen, async (trx, claim) => {
    await lockBudgets(trx, await selectUsedBudgets(trx, claim.row.id));
    const source = { kind: 'claim' as const, id: claim.row.number };
    const jobs = await holdBudget(trx, { source, stage: null, at: context.clock.now() }, []);
    const kept = await keptClaim(trx, claim.at);
    const { plan } = kept.claim;
    const reserved = plan ? await reserveAgain(context, trx, plan.number) : [];
    const subject = await subjectAgain(trx, claim.row, kept);
    const columns = await assessKept(context.clock, trx, claim, subject);
    return {
      result: undefined,
      columns: { ...columns, cleared_by: null },
      facts: { version: claim.row.version },
      jobs: [...jobs, ...reserved, ...drivenAgain(kept.claim)],
    };
  });
}

/** Puts a claim on hold with a reason and a date to look again; its makers and approvers read what they are told instead. */
export function holdClaim(
  context: Context,
  actor: Actor,
  number: string,
  { revision, reason, told, until }: Hold,
): Promise<void> {
  return actAlone(context, actor, 'hold', { number, revision }, async (trx, claim) => {
    const standing = standingOf({ ...claim.row, hold_until: until }, context.clock);
    const columns = summaryColumns(await keptClaim(trx, claim.at), await selectMarks(trx, claim.at), standing);
    return {
      result: undefined,
      columns: { ...columns, hold_reason: reason, hold_told: told ?? null, hold_until: until },
      facts: { until },
      words: { reason, ...(told ? { told } : {}) },
    };
  });
}

/** Takes a claim off hold. */
export function releaseClaim(context: Context, actor: Actor, seen: SeenClaim): Promise<void> {
  return actAlone(context, actor, 'release', seen, async (trx, claim) => {
    const standing = standingOf({ ...claim.row, hold_until: null }, context.clock);
    const columns = summaryColumns(await keptClaim(trx, claim.at), await selectMarks(trx, claim.at), standing);
    return { result: undefined, columns: { ...columns, ...NO_HOLD } };
  });
}
