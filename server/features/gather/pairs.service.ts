import { pairUp } from '../../../core/evidence/matching/pairUp.ts';
import type { Pair, Side } from '../../../core/evidence/matching/matching.types.ts';
import { fromMinor, magnitude, readAmount, signOf } from '../../../core/numbers/amount.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { lockCharges, selectCharges, type ChargeRecord } from '../cards/cards.queries.ts';
import { leftOf, lockChargesToFree, stateOf, writeCharge } from '../cards/cards.service.ts';
import { inTransaction } from '../claims/access.ts';
import type { ClaimRow } from '../claims/claims.queries.ts';
import { record } from '../claims/review.service.ts';
import { selectOwnReceipts, selectReceipt, type ReceiptRecord } from '../receipts/receipts.queries.ts';
import { lockDraft, refreshDraft } from './draft.service.ts';
import { selectDraftLines, selectDrafts, updateLine, type DraftLine } from './gather.queries.ts';
import type { PairRequest, UnpairRequest } from './gather.schema.ts';
import { settleCharge } from './settleCharge.ts';

/** The lines of a person's drafts, their free charges and receipts, and which of them look like the same spending. */
export async function viewPairs({ db }: Context, actor: Actor) {
  const [drafts, lines, charges, receipts] = await Promise.all([
    selectDrafts(db, actor.id),
    selectDraftLines(db, actor.id),
    selectCharges(db, { holderId: actor.id }),
    selectOwnReceipts(db, actor.id),
  ]);
  const free = charges.filter((c) => ['open', 'partly on claims'].includes(stateOf(c)));
  const loose = receipts.filter((r) => r.usedOn.length === 0);
  return {
    revisions: Object.fromEntries(drafts.map((d) => [d.number, d.revision])),
    drafts: drafts.map((d) => ({ number: d.number, purpose: d.purpose, revision: d.revision })),
    lines: lines.map(writeLine),
    charges: free.map(writeCharge),
    receipts: loose.map(writeReceiptSide),
    proposals: {
      charges: pairUp(
        lines.filter((l) => l.charge_id === null && l.paid_by !== 'central').map(sideOfLine),
        free.map(sideOfCharge),
      ),
      receipts: pairUp(lines.filter((l) => l.receipt_id === null).map(sideOfLine), loose.map(sideOfReceipt)),
      /** Receipts and charges that are on no line yet, to be put on a claim together. */
      spendings: pairUp(loose.map(sideOfReceipt), free.filter((c) => stateOf(c) === 'open').map(sideOfCharge)).filter(
        (p) => p.left.length === 1,
      ),
    } satisfies Record<string, Pair[]>,
  };
}

const refOf = (line: DraftLine): string => `${line.number}/${line.id}`;

const writeLine = (line: DraftLine) => ({
  ref: refOf(line),
  claim: line.number,
  line: line.id,
  date: line.date,
  amount: fromMinor(line.amount, line.currency),
  currency: line.currency,
  merchant: line.merchant,
  category: line.category,
  paidBy: line.paid_by,
  personal: line.personal,
  receipt: line.receipt_id,
  charge: line.charge_id,
});

function shownBy(r: ReceiptRecord) {
  if (r.confirmedAt)
    return { amount: r.amount, currency: r.currency, date: r.date, merchant: r.merchant, card: r.cardDigits };
  const { amount, currency, date, merchant, cardDigits } = r.reading ?? {};
  const minor = amount && currency ? readAmount(amount.value, currency.value) : null;
  return {
    amount: minor,
    currency: currency?.value ?? null,
    date: date?.value ?? null,
    merchant: merchant?.value ?? null,
    card: cardDigits?.value ?? null,
  };
}

function writeReceiptSide(r: ReceiptRecord) {
  const { amount, currency, ...rest } = shownBy(r);
  return {
    id: r.id,
    name: r.name,
    state: r.state ?? 'read',
    ...rest,
    currency,
    amount: amount === null || currency === null ? null : fromMinor(amount, currency),
  };
}

const sideOfLine = (l: DraftLine): Side => ({
  id: refOf(l),
  amount: l.amount,
  currency: l.currency,
  date: l.date,
  merchant: l.merchant,
  card: l.card,
});
const sideOfCharge = (c: ChargeRecord): Side => ({
  id: String(c.id),
  amount: leftOf(c),
  currency: c.currency,
  settled: c.settledCurrency === c.currency ? null : { amount: c.settledAmount, currency: c.settledCurrency },
  date: c.purchasedOn,
  merchant: c.merchant,
  card: c.card,
});
const sideOfReceipt = (r: ReceiptRecord): Side => ({ id: String(r.id), ...shownBy(r) });

/** Accepts pairs, all or none, on every claim they touch. */
export function acceptPairs(context: Context, actor: Actor, { revisions, pairs }: PairRequest): Promise<void> {
  return inTransaction(context, async (trx) => {
    const claims = await lockClaims(
      trx,
      actor,
      revisions,
      pairs.flatMap((p) => p.lines.map((l) => l.claim)),
    );
    await lockCharges(
      trx,
      pairs.flatMap((p) => (p.charge ? [p.charge] : [])),
    );
    const lines = new Map((await selectDraftLines(trx, actor.id)).map((l) => [refOf(l), l]));
    for (const pair of pairs) {
      const own = pair.lines.map(({ claim, line }) => {
        const found = lines.get(`${claim}/${line}`);
        if (!found) throw new Refused('not-found', { what: 'line' });
        return found;
      });
      if (pair.charge) await pairCharge(trx, actor, claims, own, pair.charge, pair.takeAmount);
      if (pair.receipt) await pairReceipt(trx, actor, claims, own, pair.receipt);
    }
    await finish(trx, context, actor, claims, 'paired', {
      lines: pairs.flatMap((p) => p.lines.map((l) => `${l.claim}/${l.line}`)),
    });
  });
}

async function pairCharge(
  trx: Db,
  actor: Actor,
  claims: Map<string, ClaimRow>,
  lines: DraftLine[],
  chargeId: string,
  takeAmount: boolean,
): Promise<void> {
  const [charge] = await selectCharges(trx, { holderId: actor.id, ids: [chargeId] });
  if (!charge) throw new Refused('not-found', { what: 'charge' });
  if (charge.mark)
    throw new Refused('charge-in-use', { merchant: charge.merchant, state: 'marked as claimed already' });
  const taken = lines.find((l) => l.charge_id !== null);
  if (taken)
    throw new Refused('pair-differs', {
      problem: `Line ${taken.id} of ${taken.number} has a charge already. Undo that pair first.`,
    });
  const money = fit(lines, charge, takeAmount);
  for (const line of lines)
    await updateLine(trx, keyOf(claims, line), {
      ...money,
      charge_id: charge.id,
      paid_by: 'card',
      card: charge.card,
      rate_kind: 'card',
      rate_value: null,
      settled_amount: charge.settledAmount,
      settled_currency: charge.settledCurrency,
      before_pair: JSON.stringify(stateBefore(line)),
    });
  await settleCharge(trx, charge);
}

/** What changes in the amount of a line, or why the lines cannot be on the charge. The bank's amount never changes. */
function fit(lines: DraftLine[], charge: ChargeRecord, takeAmount: boolean): Record<string, unknown> {
  const left = leftOf(charge);
  const [only] = lines;
  const sameCurrency = lines.every((l) => l.currency === charge.currency);
  const sum = lines.reduce((a, l) => a + l.amount, 0n);
  if (
    sameCurrency
    && (sum === left
      || (signOf(sum) === signOf(left)
        && magnitude(sum) < magnitude(left)
        && (lines.length > 1 || charge.lines.length > 0)))
  )
    return {};
  const asTaken =
    lines.length === 1
    && charge.lines.length === 0
    && only!.currency === charge.settledCurrency
    && only!.amount === charge.settledAmount;
  if (asTaken) return { amount: charge.amount, currency: charge.currency };
  if (lines.length === 1 && takeAmount) return { amount: left, currency: charge.currency };
  const said = lines.map((l) => `${fromMinor(l.amount, l.currency)} ${l.currency}`).join(' and ');
  throw new Refused('pair-differs', {
    problem: `${lines.length === 1 ? 'The line says' : 'The lines say'} ${said}; of the charge ${fromMinor(left, charge.currency)} ${charge.currency} is left.`,
    takeable: lines.length === 1,
    left: fromMinor(left, charge.currency),
    currency: charge.currency,
  });
}

const stateBefore = (l: DraftLine) => ({
  paid_by: l.paid_by,
  card: l.card,
  amount: String(l.amount),
  currency: l.currency,
  rate_kind: l.rate_kind,
  rate_value: l.rate_value,
  settled_amount: l.settled_amount === null ? null : String(l.settled_amount),
  settled_currency: l.settled_currency,
});

async function pairReceipt(
  trx: Db,
  actor: Actor,
  claims: Map<string, ClaimRow>,
  lines: DraftLine[],
  receiptId: string,
): Promise<void> {
  const receipt = await selectReceipt(trx, BigInt(receiptId));
  if (receipt?.ownerId !== actor.id) throw new Refused('not-found', { what: 'receipt' });
  const foreign = receipt.usedOn.find((use) => use.state !== 'draft');
  if (foreign) throw new Refused('receipt-in-use', { claim: foreign.claim, state: foreign.state });
  for (const line of lines) await updateLine(trx, keyOf(claims, line), { receipt_id: receipt.id });
}

const keyOf = (claims: Map<string, ClaimRow>, line: DraftLine) => ({
  claim_id: line.claim_id,
  version: claims.get(line.number)!.version,
  id: line.id,
});

async function lockClaims(
  trx: Db,
  actor: Actor,
  revisions: Record<string, number>,
  numbers: string[],
): Promise<Map<string, ClaimRow>> {
  const claims = new Map<string, ClaimRow>();
  for (const number of [...new Set(numbers)].sort())
    claims.set(number, await lockDraft(trx, actor, { number, revision: revisions[number] ?? 0 }));
  return claims;
}

async function finish(
  trx: Db,
  context: Context,
  actor: Actor,
  claims: Map<string, ClaimRow>,
  kind: string,
  facts: Record<string, unknown>,
): Promise<void> {
  for (const claim of claims.values()) {
    await refreshDraft(trx, context, claim);
    await record(trx, context, actor, claim, kind, { revision: claim.revision, ...facts });
  }
}

/** Takes charges or receipts off lines again; a line is then as it was before the pair. */
export function undoPairs(context: Context, actor: Actor, { lines: refs, what }: UnpairRequest): Promise<void> {
  return inTransaction(context, async (trx) => {
    const revisions = Object.fromEntries((await selectDrafts(trx, actor.id)).map((d) => [d.number, d.revision]));
    const claims = await lockClaims(
      trx,
      actor,
      revisions,
      refs.map((r) => r.claim),
    );
    const wanted = new Set(refs.map((r) => `${r.claim}/${r.line}`));
    const lines = (await selectDraftLines(trx, actor.id)).filter((l) => wanted.has(refOf(l)));
    if (what === 'charge') await lockChargesToFree(trx, chargesOf(lines));
    for (const line of lines) {
      if (what === 'receipt') await updateLine(trx, keyOf(claims, line), { receipt_id: null });
      else if (line.charge_id !== null) await unpairCharge(trx, claims, line);
    }
    await finish(trx, context, actor, claims, 'unpaired', { lines: [...wanted], what });
  });
}

const chargesOf = (lines: readonly DraftLine[]): string[] =>
  lines.flatMap((l) => (l.charge_id === null ? [] : [String(l.charge_id)]));

async function unpairCharge(trx: Db, claims: Map<string, ClaimRow>, line: DraftLine): Promise<void> {
  const before = line.before_pair ?? { rate_kind: 'reference', settled_amount: null, settled_currency: null };
  await updateLine(trx, keyOf(claims, line), { ...before, charge_id: null, before_pair: null });
  const [charge] = await selectCharges(trx, { ids: [String(line.charge_id)] });
  if (charge) await settleCharge(trx, charge);
}
