import type { Grant } from '../../../contract/advances.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { actOnAdvance, type SeenAdvance } from '../../records/advances/advanceStore.ts';
import { lockAdvanceRow, type AdvanceRow } from '../../records/advances/advances.queries.ts';
import { routedAdvanceKey } from '../../records/advances/routedAdvance.ts';
import { selectPeriods } from '../../records/book/periods.queries.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { decide, endRoute, isLastDecision, undecide } from '../../records/routing/decide.ts';
import { judge, refuseProblems } from './judge.ts';

/** Approves an advance for all this person is asked about; after the last decision a reviewer grants it. */
export const approveAdvance = (
  context: Context,
  actor: Actor,
  { comment, ...seen }: SeenAdvance & { comment?: string | undefined },
): Promise<void> =>
  inTransaction(context, async (trx) => {
    const found = await lockAdvanceRow(trx, seen.number);
    const last = !found || (await isLastDecision(trx, routedAdvanceKey(found), found.entity_id, actor));
    const act = last ? 'approve' : 'approvePart';
    await actOnAdvance(context, trx, { act, advance: seen, actor }, async ({ row, revision }) => {
      const record = { key: routedAdvanceKey(row), entity: row.entity_id, revision, approvers: row.approvers };
      const decided = await decide(trx, record, actor, context.clock.now());
      return { result: undefined, ...decided, words: comment ? { comment } : null };
    });
  });

/** Takes back one's own decision, as long as nobody did anything since. */
export const takeBackAdvance = (context: Context, actor: Actor, seen: SeenAdvance): Promise<void> =>
  inTransaction(context, (trx) =>
    actOnAdvance(context, trx, { act: 'takeBack', advance: seen, actor }, async ({ row }) => ({
      result: undefined,
      columns: await undecide(trx, { key: routedAdvanceKey(row) }, row.decided_in!, context.clock.now()),
    })),
  );

export const declineAdvance = (
  context: Context,
  actor: Actor,
  { reason, ...seen }: SeenAdvance & { reason: string },
): Promise<void> =>
  inTransaction(context, (trx) =>
    actOnAdvance(context, trx, { act: 'decline', advance: seen, actor }, async ({ row }) => ({
      result: undefined,
      columns: await endRoute(trx, routedAdvanceKey(row)),
      words: { reason },
    })),
  );

/**
 * Grants an advance, or less of it with the reason, and sets the day by which it is accounted for. The rules are looked at
 * again, since something may have become overdue meanwhile; the reviewer's reason opens them as the person's own does.
 */
export const grantAdvance = (
  context: Context,
  actor: Actor,
  { number, revision, ...grant }: SeenAdvance & Grant,
): Promise<void> =>
  inTransaction(context, (trx) =>
    actOnAdvance(context, trx, { act: 'grant', advance: { number, revision }, actor }, async ({ row }) => {
      const { dueBy, reason } = grant;
      const amount = grantedAmount(row, grant);
      const on = await futureDay(context, trx, row.entity_id, dueBy);
      const problems = await judge(trx, { ...row, amount }, on);
      refuseProblems(problems, row.exception ?? reason ?? null);
      const facts = { dueBy, amount: fromMinor(amount, row.currency), currency: row.currency };
      return {
        result: undefined,
        columns: { amount, due_by: dueBy, problems: JSON.stringify(problems) },
        facts,
        words: reason ? { reason } : null,
      };
    }),
  );

function grantedAmount(
  { requested, currency }: AdvanceRow,
  { amount: said, reason }: Pick<Grant, 'amount' | 'reason'>,
) {
  const amount = said === undefined ? requested : minorOf(said, currency, 'amount');
  if (amount > requested)
    throw invalid({ path: ['amount'], message: `is more than the ${fromMinor(requested, currency)} asked for` });
  if (amount < requested && !reason) throw invalid({ path: ['reason'], message: 'is missing: say why it is less' });
  return amount;
}

/** Today where the entity is; a day by which something is to be done is not before it. */
async function futureDay({ clock }: Context, trx: Db, entity: string, day: string): Promise<string> {
  const on = today(clock, (await selectPeriods(trx, entity)).timeZone);
  if (day < on) throw new Refused('day-past', { day, today: on, path: 'dueBy' });
  return on;
}

/** Moves the day by which an advance that was paid out is accounted for. */
export const extendAdvance = (
  context: Context,
  actor: Actor,
  { dueBy, reason, ...seen }: SeenAdvance & { dueBy: string; reason: string },
): Promise<void> =>
  inTransaction(context, (trx) =>
    actOnAdvance(context, trx, { act: 'extend', advance: seen, actor }, async ({ row }) => {
      await futureDay(context, trx, row.entity_id, dueBy);
      return { result: undefined, columns: { due_by: dueBy }, facts: { dueBy }, words: { reason } };
    }),
  );
