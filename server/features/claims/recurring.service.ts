import { daysBetween } from '../../../core/numbers/isoDate.ts';
import { audienceOf } from '../../../core/workflow/audienceOf.ts';
import type { DealRecurring, RecurringLines, Repeat } from '../../../contract/drafts.ts';
import { movedBy, newLineOf } from '../../../contract/newLineOf.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { claimFromRows } from '../../records/claims/assessClaim.ts';
import { claimFacts, type LockedClaim, type SeenClaim } from '../../records/claims/claimStore.ts';
import { selectClaim } from '../../records/claims/claims.queries.ts';
import { touchClaims, type Touch } from '../../records/claims/touchClaims.ts';
import { entityToday } from '../../records/book/postingDate.ts';
import { nextRecurrence, recurrenceDays } from './recurrence.ts';
import { addLines } from './lines.service.ts';
import {
  deleteRecurring,
  insertRecurring,
  lockRecurring,
  selectRecurring,
  updateNext,
  type RecurringRow,
} from './recurring.queries.ts';

const MOST_DUE = 24;
const MOST_LINES = 100;

/** The lines that come again for a claim's claimant, each with the days on which it is due by now, or by the end of the trip. */
export async function viewRecurring(
  { db, clock }: Pick<Context, 'db' | 'clock'>,
  actor: Actor,
  number: string,
): Promise<RecurringLines> {
  const claim = await selectClaim(db, number);
  if (!claim || audienceOf(claimFacts(claim), actor) !== 'claimant') throw new Refused('not-found', { what: 'claim' });
  const now = today(clock, claim.time_zone);
  const by = claim.trip_to !== null && claim.trip_to > now ? claim.trip_to : now;
  const rows = await selectRecurring(db, claim.claimant_id);
  return { lines: rows.map((row) => shown(row, by)) };
}

function shown(
  { id, every, first_on, next_on, until, line }: RecurringRow,
  by: string,
): RecurringLines['lines'][number] {
  const to = until !== null && until < by ? until : by;
  const due = recurrenceDays(first_on, every, { from: next_on, to, most: MOST_DUE });
  return { id: String(id), every, until, line, due };
}

/** Keeps a line to be proposed again, so often, until a day or for good. What is on the claim stays as it is. */
export const repeatLine = (
  context: Context,
  actor: Actor,
  seen: SeenClaim,
  id: string,
  { every, until }: Repeat,
): Promise<void> =>
  act(context, actor, seen, edited('repeat'), async (trx, { row }) => {
    const claim = await claimFromRows(trx, row, await entityToday(trx, context.clock, row.entity_id));
    const line = claim.lines.find((l) => l.id === id);
    if (!line) throw new Refused('not-found', { what: 'line' });
    if (line.personal || line.rate?.kind === 'card') throw new Refused('not-repeatable', { line: id });
    if ((await selectRecurring(trx, row.claimant_id)).length >= MOST_LINES)
      throw new Refused('many-kept', { most: String(MOST_LINES) });
    const next = nextRecurrence(line.date, every);
    if (until !== null && until < next)
      throw invalid({ path: ['until'], message: 'is before it would come again for the first time' });
    const written = { ...newLineOf(line), estimate: null };
    const times = { person_id: row.claimant_id, every, first_on: line.date, next_on: next, until };
    await insertRecurring(trx, { ...times, line: written });
  });

/** Takes what is due on a day as a line of the claim, or passes over it; either way that day is dealt with. */
export function dealWithRecurring(
  context: Context,
  actor: Actor,
  seen: SeenClaim,
  id: bigint,
  { on, take }: DealRecurring,
): Promise<void> {
  const made: string[] = [];
  const facts = () => (take ? { lines: made } : { fields: ['recurring'] });
  return act(context, actor, seen, { act: take ? 'write' : 'edit', facts }, async (trx, claim) => {
    const due = await lockRecurring(trx, claim.row.claimant_id, id);
    if (!due) throw new Refused('not-found', { what: 'recurring line' });
    const beyond = due.until !== null && due.until < on;
    if (due.next_on !== on || beyond) throw new Refused('recurring-dealt', { on });
    await updateNext(trx, id, recurrenceDays(due.first_on, due.every, { from: on, to: LAST, most: 2 })[1]!);
    if (take) made.push(...(await addLines(trx, claim, [movedBy(due.line, daysBetween(due.line.date, on))])));
  });
}
const LAST = '9999-12-31';

/** Ends a recurring line; the lines that were made of it stay. */
export const endRecurring = (context: Context, actor: Actor, seen: SeenClaim, id: bigint): Promise<void> =>
  act(context, actor, seen, edited('recurring'), async (trx, { row }) => {
    if (!(await lockRecurring(trx, row.claimant_id, id))) throw new Refused('not-found', { what: 'recurring line' });
    await deleteRecurring(trx, id);
  });

const edited = (field: string): Pick<Touch, 'act' | 'facts'> => ({
  act: 'edit',
  facts: () => ({ fields: [field] }),
});
const act = (
  context: Context,
  actor: Actor,
  seen: SeenClaim,
  touch: Pick<Touch, 'act' | 'facts'>,
  work: (trx: Db, claim: LockedClaim) => Promise<void>,
): Promise<void> =>
  inTransaction(context, (trx) =>
    touchClaims(context, trx, { ...touch, actor, claims: [seen], charges: [] }, (claims) =>
      work(trx, claims.get(seen.number)!),
    ),
  );
