import type { Coding, Item, Line } from '../../../core/documents/case.schema.ts';
import type { LineEdit, NewLine } from '../../../contract/drafts.ts';
import { datedRows } from '../../../core/numbers/datedRows.ts';
import { quantityAmount } from '../../../core/figures/computed/computedAmounts.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { selectCategories } from '../../records/book/book.queries.ts';
import { selectCharges } from '../../records/cards/cards.queries.ts';
import { lockChargesToFree } from '../../records/cards/charges.ts';
import type { LockedClaim, SeenClaim } from '../../records/claims/claimStore.ts';
import { selectClaim, updateClaim } from '../../records/claims/claims.queries.ts';
import {
  deleteLine,
  insertLines,
  replaceLine,
  restateLine,
  selectLines,
  updateLine,
  type LineRecord,
} from '../../records/claims/lines.queries.ts';
import { lastOf } from '../../records/claims/lineNumbers.ts';
import { columnsOf, lineRecord, wholeRecord } from '../../records/claims/lineRecord.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { readLine } from '../../records/claims/readDocument.ts';
import { selectChargeOfLine } from '../../records/claims/preparation.queries.ts';
import { divideCharge } from '../../records/claims/divideCharge.ts';
import { selectEstimates, selectPlan } from '../../records/plans/plans.queries.ts';
import { touchClaims } from '../../records/claims/touchClaims.ts';
import { putReceiptsOn } from './receiptOnLine.service.ts';

/**
 * Changes lines of a claim in preparation alike, all or none. What the bank said of a charge stays: amount and date of such
 * a line are not changed.
 */
export function editLines(
  context: Context,
  actor: Actor,
  seen: SeenClaim,
  { ids, set, codes }: { ids: readonly string[]; set: LineEdit['set']; codes?: Coding | undefined },
): Promise<void> {
  return inTransaction(context, (trx) => {
    const of = ids.length === 1 ? { line: ids[0] } : { lines: ids };
    const facts = () => ({ ...of, fields: [...Object.keys(set), ...(codes ? ['coding'] : [])] });
    return touchClaims(context, trx, { act: 'edit', actor, claims: [seen], charges: [], facts }, async (claims) => {
      const claim = claims.get(seen.number)!;
      const asks = await fieldsAsked(trx);
      const planned = await plannedCoding(trx, claim.row.plan?.number, set.estimate);
      for (const id of new Set(ids)) await edit(trx, claim, id, { set, codes, asks, planned });
    });
  });
}

interface Change {
  set: LineEdit['set'];
  /** Codes that are put on top of what the line says. */
  codes: Coding | undefined;
  asks: FieldsAsked;
  /** What applies where the line says nothing: the coding of the estimate it is put on. */
  planned: Coding;
}

/** The coding an estimate of a plan has of its own, with which a line begins that is put on it. */
async function plannedCoding(trx: Db, plan: string | undefined, estimate: string | null | undefined): Promise<Coding> {
  if (plan === undefined || estimate == null) return {};
  const row = await selectPlan(trx, plan);
  return (row && (await selectEstimates(trx, row.id)).find((e) => e.id === estimate)?.coding) ?? {};
}

async function edit(
  trx: Db,
  { at }: LockedClaim,
  lineId: string,
  { set, codes, asks, planned }: Change,
): Promise<void> {
  const key = { ...at, id: lineId };
  const ofBank = set.amount ?? set.date ?? set.paidBy ?? set.quantity ?? set.journey ?? set.stay;
  if (ofBank && (await selectChargeOfLine(trx, key)) !== null) throw new Refused('bank-facts');
  if (set.amount) {
    const { amount, currency } = set.amount;
    await restateLine(trx, key, { amount: minorOf(amount, currency, 'amount'), currency });
  }
  const line = await readLine(trx, at, lineId);
  if (!line) throw new Refused('not-found', { what: 'line' });
  const isComputed = set.journey === undefined && set.stay === undefined && (line.journey ?? line.stay);
  if (set.amount && isComputed) throw new Refused('computed-amount', { line: lineId });
  const coding = { ...planned, ...(set.coding ?? line.coding), ...codes };
  apply(line, { ...set, coding }, asks);
  await replaceLine(trx, at, lineRecord(line));
  await updateLine(trx, key, columnsOf(line));
}

/** What was written, put on the line; an amount that is computed from a quantity is computed. */
function apply(line: Line, { amount, items, ...set }: LineEdit['set'], asks: FieldsAsked): void {
  // an amount that is typed is no longer computed, and one in another currency least of all
  if (amount && set.quantity === undefined) line.quantity = null;
  Object.assign(line, set);
  if (items) takeItems(line, items);
  if (set.category) Object.assign(line, keepAsked(line, asks(set.category, line.date)));
  if (line.quantity) line.amount = quantityAmount(line.quantity, line.currency);
}

type FieldsAsked = (category: string, date: string) => ReadonlySet<string>;
/** The names of the fields a category asks for on a day. */
async function fieldsAsked(db: Db): Promise<FieldsAsked> {
  const categories = datedRows(await selectCategories(db), (c) => c.id);
  return (category, date) => new Set((categories.on(category, date)?.fields ?? []).map((f) => f.name));
}

/** Of what a line says of itself that which a category asks for too; the rest is dropped. */
const keepAsked = ({ nights, attendees, journey, stay, fields }: Line, asked: ReadonlySet<string>) => ({
  nights: asked.has('nights') ? nights : null,
  attendees: asked.has('attendees') ? attendees : null,
  journey: asked.has('journey') ? journey : null,
  stay: asked.has('stay') ? stay : null,
  fields: Object.fromEntries(Object.entries(fields ?? {}).filter(([name]) => asked.has(name))),
});

/** Adds lines as they were written, all or none, each with the next number. */
export const writeLines = (
  context: Context,
  actor: Actor,
  seen: SeenClaim,
  written: readonly NewLine[],
): Promise<void> => inTransaction(context, (trx) => writeLinesIn(context, trx, actor, seen, written));

/** As `writeLines`, inside a transaction. */
export function writeLinesIn(
  context: Context,
  trx: Db,
  actor: Actor,
  seen: SeenClaim,
  written: readonly NewLine[],
): Promise<void> {
  const made: string[] = [];
  const touch = { act: 'write' as const, actor, claims: [seen], charges: [], facts: () => ({ lines: made }) };
  return touchClaims(context, trx, touch, async (claims) => {
    const claim = claims.get(seen.number)!;
    made.push(...(await addLines(trx, claim, written)));
    const papers = written.flatMap(({ receipt }, i) => (receipt ? [{ line: made[i]!, receipt }] : []));
    await putReceiptsOn(trx, actor, { number: seen.number, at: claim.at }, papers);
  });
}

/** Puts lines on a claim that is held, each with the next number; their numbers. */
export async function addLines(trx: Db, { row, at }: LockedClaim, written: readonly NewLine[]): Promise<string[]> {
  const last = lastOf(row.last_line, await selectLines(trx, at));
  await updateClaim(trx, row.id, { last_line: last.number + written.length });
  const asks = await fieldsAsked(trx);
  const records: LineRecord[] = [];
  for (const [i, { amount, receipt: _, ...set }] of written.entries()) {
    const line: Line = { id: String(last.number + 1 + i), paidBy: 'own', date: set.date, ...amount };
    const planned = await plannedCoding(trx, row.plan?.number, set.estimate);
    apply(line, { ...set, coding: { ...planned, ...set.coding } }, asks);
    records.push(wholeRecord(line));
  }
  await insertLines(trx, at, last.position + 1, records);
  return written.map((_, i) => String(last.number + 1 + i));
}

/** A line with items has no category, tax or split of its own; without items it takes the category of the first. */
function takeItems(line: Line, items: Item[]): void {
  if (new Set(items.map((i) => i.id)).size < items.length)
    throw invalid({ path: ['set', 'items'], message: 'has two items of one id' });
  const first = line.items?.find((item) => item.category)?.category;
  if (items.length === 0 && line.items?.length) line.category = first ?? null;
  if (items.length > 0) Object.assign(line, { category: null, tax: [], split: null });
  line.items = items;
}

/** Takes a line off a claim in preparation; its receipt and charge are free again. */
export function removeLine(context: Context, actor: Actor, seen: SeenClaim, lineId: string): Promise<void> {
  return inTransaction(context, async (trx) => {
    const charge = await chargeOfSeen(trx, seen.number, lineId);
    const touch = {
      act: 'remove' as const,
      actor,
      claims: [seen],
      charges: charge ? [charge] : [],
      facts: () => ({ line: lineId }),
    };
    return touchClaims(context, trx, touch, async (claims) => {
      const { at } = claims.get(seen.number)!;
      if (charge) await lockChargesToFree(trx, [charge]);
      await deleteLine(trx, { ...at, id: lineId });
      const [freed] = charge ? await selectCharges(trx, { ids: [charge] }) : [];
      if (freed) await divideCharge(trx, freed);
    });
  });
}

/** The charge of a line as it is before its claim is locked; what it is then decides which claims are locked with it. */
async function chargeOfSeen(trx: Db, number: string, lineId: string): Promise<string | null> {
  const claim = await selectClaim(trx, number);
  return claim ? selectChargeOfLine(trx, { claim_id: claim.id, version: claim.version, id: lineId }) : null;
}
