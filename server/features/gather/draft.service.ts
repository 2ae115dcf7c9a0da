import type { Item, Line } from '../../../core/documents/case.schema.ts';
import { fromMinor, readAmount } from '../../../core/numbers/amount.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { proposedPostingDate } from '../book/postingDate.ts';
import { lockChargesToFree } from '../cards/cards.service.ts';
import { inTransaction } from '../claims/access.ts';
import { buildCase } from '../claims/buildCase.ts';
import { lockClaim, replaceLine, updateClaim, type ClaimRow } from '../claims/claims.queries.ts';
import { refreshClaim } from '../claims/refreshClaim.ts';
import { record, toRecord } from '../claims/review.service.ts';
import { deleteLine, selectChargeOfLine, updateLine } from './gather.queries.ts';
import type { LineEdit } from './gather.schema.ts';

/** Locks a draft of the actor's at the revision that was seen. */
export async function lockDraft(
  trx: Db,
  actor: Actor,
  { number, revision }: { number: string; revision: number },
): Promise<ClaimRow> {
  const claim = await lockClaim(trx, number);
  if (!claim || (claim.claimant_id !== actor.id && claim.preparer_id !== actor.id))
    throw new Refused('not-found', { what: 'claim' });
  if (claim.state !== 'draft') throw new Refused('not-yours-to-change', { claim: number, state: claim.state });
  if (claim.revision !== revision)
    throw new Refused('stale', { revision: claim.revision, state: claim.state, changes: [] });
  return claim;
}

/** Counts the revision up and computes the draft anew. */
export async function refreshDraft(trx: Db, { clock }: Context, claim: ClaimRow): Promise<void> {
  claim.revision += 1;
  await updateClaim(trx, claim.id, { revision: claim.revision });
  await refreshClaim(trx, claim, await proposedPostingDate(trx, clock, claim.entity_id));
}

/** Changes a line of a draft. What the bank said of a charge stays: amount and date of such a line are not changed. */
export function editLine(
  context: Context,
  actor: Actor,
  number: string,
  lineId: string,
  { revision, set }: LineEdit,
): Promise<void> {
  return inTransaction(context, async (trx) => {
    const claim = await lockDraft(trx, actor, { number, revision });
    const key = { claim_id: claim.id, version: claim.version };
    const { document } = await buildCase(trx, claim, await proposedPostingDate(trx, context.clock, claim.entity_id));
    const line = document.claim.lines.find((l) => l.id === lineId);
    if (!line) throw new Refused('not-found', { what: 'line' });
    if ((await selectChargeOfLine(trx, { ...key, id: lineId })) !== null && (set.amount || set.date))
      throw new Refused('invalid', { problem: 'Amount and date of a charge are the bank’s and cannot be changed.' });
    if (set.category !== undefined) line.category = set.category;
    if (set.amount) Object.assign(line, set.amount);
    if (set.items) takeItems(line, set.items);
    requireWhole(line);
    await replaceLine(trx, key, toRecord(line));
    const columns = columnsOf(set);
    if (Object.keys(columns).length > 0) await updateLine(trx, { ...key, id: lineId }, columns);
    await refreshDraft(trx, context, claim);
    await record(trx, context, actor, claim, 'edited', {
      revision: claim.revision,
      line: lineId,
      fields: Object.keys(set),
    });
  });
}

/** A line with items has no category, tax or split of its own; without items it takes the category of the first. */
function takeItems(
  line: { category?: string | null; tax?: unknown; split?: unknown; items?: Item[] | null },
  items: Item[],
): void {
  const first = line.items?.find((item) => item.category)?.category;
  if (items.length === 0 && line.items?.length) line.category = first ?? null;
  if (items.length > 0) Object.assign(line, { category: null, tax: [], split: null });
  line.items = items;
}

/** A line with items is their sum, to the minor unit. */
function requireWhole({ id, amount, currency, items }: Line): void {
  if (!items?.length) return;
  const minor = (written: string): bigint => {
    const read = readAmount(written, currency);
    if (read === null)
      throw new Refused('invalid', { problem: `"${written}" does not have the decimals of ${currency}.` });
    return read;
  };
  const left = minor(amount) - items.reduce((sum, item) => sum + minor(item.amount), 0n);
  if (left !== 0n)
    throw new Refused('invalid', {
      problem: `${fromMinor(left, currency)} ${currency} of line ${id} is left. Change the items until nothing is.`,
      path: 'items',
    });
}

function columnsOf(set: LineEdit['set']): Record<string, unknown> {
  const columns: Record<string, unknown> = {};
  for (const field of ['description', 'date', 'merchant'] as const)
    if (set[field] !== undefined) columns[field] = set[field];
  if (set.amount) {
    const minor = readAmount(set.amount.amount, set.amount.currency);
    if (minor === null)
      throw new Refused('invalid', {
        problem: `"${set.amount.amount}" does not have the decimals of ${set.amount.currency}.`,
        path: 'amount',
      });
    Object.assign(columns, { amount: minor, currency: set.amount.currency });
  }
  return columns;
}

/** Takes a line off a draft; its receipt and charge are free again. */
export function removeLine(
  context: Context,
  actor: Actor,
  number: string,
  lineId: string,
  revision: number,
): Promise<void> {
  return inTransaction(context, async (trx) => {
    const claim = await lockDraft(trx, actor, { number, revision });
    const key = { claim_id: claim.id, version: claim.version, id: lineId };
    const charge = await selectChargeOfLine(trx, key);
    if (charge !== null) await lockChargesToFree(trx, [charge]);
    await deleteLine(trx, key);
    await refreshDraft(trx, context, claim);
    await record(trx, context, actor, claim, 'line removed', { revision: claim.revision, line: lineId });
  });
}
