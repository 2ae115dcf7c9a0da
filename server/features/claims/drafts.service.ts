import type { BeginDraft, HeaderEdit } from '../../../contract/drafts.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { beginClaim, usualCoding } from '../../records/claims/beginClaim.ts';
import type { SeenClaim } from '../../records/claims/claimStore.ts';
import { selectLines, updateClaim, updateLine } from '../../records/claims/claims.queries.ts';
import { touchClaims } from '../../records/claims/touchClaims.ts';

/** Begins a claim from nothing, one's own or for somebody else; its number. It begins with the coding of their last one. */
export const beginDraft = (context: Context, actor: Actor, begin: BeginDraft): Promise<{ number: string }> =>
  inTransaction(context, async (trx) => {
    const claimant = begin.claimant ?? actor.id;
    const coding = begin.coding ?? (await usualCoding(trx, claimant));
    const { number } = await beginClaim(context, trx, actor, { ...begin, claimant, coding });
    return { number };
  });

/** Changes what the header of a claim in preparation says. */
export function editHeader(context: Context, actor: Actor, seen: SeenClaim, set: HeaderEdit['set']): Promise<void> {
  return inTransaction(context, (trx) => {
    const facts = () => ({ fields: Object.keys(set) });
    return touchClaims(context, trx, { act: 'edit', actor, claims: [seen], charges: [], facts }, async (claims) => {
      const { row } = claims.get(seen.number)!;
      const { purpose = row.purpose, tripFrom = row.trip_from, tripTo = row.trip_to, coding = row.coding } = set;
      if (tripFrom && tripTo && tripTo < tripFrom)
        throw invalid({ path: ['set', 'tripTo'], message: 'is before the first day' });
      Object.assign(row, { purpose, trip_from: tripFrom, trip_to: tripTo, coding });
      const columns = { purpose, trip_from: tripFrom, trip_to: tripTo, coding: JSON.stringify(coding) };
      await updateClaim(trx, row.id, columns);
    });
  });
}

/** Puts the lines of a claim in preparation in another order. */
export function orderLines(context: Context, actor: Actor, seen: SeenClaim, order: readonly string[]): Promise<void> {
  return inTransaction(context, (trx) => {
    const facts = () => ({ fields: ['order'] });
    return touchClaims(context, trx, { act: 'edit', actor, claims: [seen], charges: [], facts }, async (claims) => {
      const { at } = claims.get(seen.number)!;
      const lines = await selectLines(trx, at);
      const there = new Set(lines.map((l) => l.id));
      if (order.length !== there.size || new Set(order).size !== order.length || order.some((id) => !there.has(id)))
        throw new Refused('order-other');
      for (const [position, id] of order.entries())
        if (lines[position]!.id !== id) await updateLine(trx, { ...at, id }, { position });
    });
  });
}
