import { fromMinor, magnitude, signOf } from '../../../core/numbers/amount.ts';
import type { PairRequest, UnpairRequest } from '../../../contract/gather.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { lockCharges, selectCharges, type ChargeRecord } from '../../records/cards/cards.queries.ts';
import { leftOf, lockChargesToFree } from '../../records/cards/charges.ts';
import { deleteLine, restateLine, updateLine } from '../../records/claims/lines.queries.ts';
import { lockReceipts, receiptFor } from '../../records/receipts/receiptFor.ts';
import { paidBy, stateBefore } from './chargeOnLine.ts';
import { partLine, withParts } from './partLine.ts';
import { refOf, selectDraftLines, type DraftLine } from './gather.queries.ts';
import { divideCharge } from '../../records/claims/divideCharge.ts';
import { touchClaims } from '../../records/claims/touchClaims.ts';

type Refs = readonly { claim: string; line: string }[];
const claimsOf = (refs: Refs, revisions: Record<string, number>) =>
  [...new Set(refs.map((r) => r.claim))].map((number) => ({ number, revision: revisions[number] ?? 0 }));
const namesOf = (refs: Refs): string[] => refs.map((r) => `${r.claim}/${r.line}`);

/** Accepts pairs, all or none, on every claim they touch. */
export function acceptPairs(context: Context, actor: Actor, { revisions, pairs }: PairRequest): Promise<void> {
  const refs = pairs.flatMap((p) => p.lines);
  const charges = pairs.flatMap((p) => [...(p.charge ? [p.charge] : []), ...(p.charges ?? [])]);
  const claims = claimsOf(refs, revisions);
  const facts = () => ({ lines: namesOf(refs) });
  return inTransaction(context, (trx) =>
    touchClaims(context, trx, { act: 'pair', actor, claims, charges, facts }, async (locked) => {
      await lockCharges(trx, charges);
      await lockReceipts(
        trx,
        pairs.flatMap((p) => (p.receipt ? [p.receipt] : [])),
      );
      const lines = new Map((await selectDraftLines(trx, actor.id)).map((l) => [refOf(l), l]));
      for (const pair of pairs) {
        if (pair.charges)
          await partLine(trx, locked, onlyLine(pair, lines), await chargesFor(trx, actor, pair.charges));
        await accept(trx, actor, pair, lines);
      }
    }),
  );
}

async function accept(
  trx: Db,
  actor: Actor,
  pair: PairRequest['pairs'][number],
  lines: ReadonlyMap<string, DraftLine>,
): Promise<void> {
  const own = namesOf(pair.lines).map((name) => {
    const found = lines.get(name);
    if (!found) throw new Refused('not-found', { what: 'line' });
    return found;
  });
  if (pair.charge) await pairCharge(trx, actor, own, pair.charge, pair.takeAmount);
  if (pair.receipt) await pairReceipt(trx, actor, own, pair.receipt);
}

function onlyLine({ lines: refs }: PairRequest['pairs'][number], lines: ReadonlyMap<string, DraftLine>): DraftLine {
  const line = refs.length === 1 ? lines.get(namesOf(refs)[0]!) : undefined;
  if (!line) throw new Refused('not-found', { what: 'line' });
  return line;
}

/** The actor's charges, in the order they are named; none of them marked as claimed already. */
async function chargesFor(trx: Db, actor: Actor, ids: readonly string[]): Promise<ChargeRecord[]> {
  const found = await selectCharges(trx, { holderId: actor.id, ids });
  return ids.map((id) => {
    const charge = found.find((c) => String(c.id) === id);
    if (!charge) throw new Refused('not-found', { what: 'charge' });
    if (charge.marked)
      throw new Refused('charge-in-use', { merchant: charge.merchant, state: 'marked as claimed already' });
    return charge;
  });
}

async function pairCharge(
  trx: Db,
  actor: Actor,
  lines: readonly DraftLine[],
  chargeId: string,
  takeAmount: boolean,
): Promise<void> {
  const [charge] = (await chargesFor(trx, actor, [chargeId])) as [ChargeRecord];
  const taken = lines.find((l) => l.charge_id !== null);
  if (taken) throw new Refused('pair-taken', { line: taken.id, claim: taken.number });
  const money = fit(lines, charge, takeAmount);
  for (const line of lines) {
    if (money) await restateLine(trx, line, money);
    await updateLine(trx, line, { ...paidBy(charge), before_pair: JSON.stringify(stateBefore(line)) });
  }
  await divideCharge(trx, charge);
}

/**
 * The amount a line gets, null where it keeps its own, or why the lines cannot be on the charge. What the bank said never
 * changes; a line in another currency keeps its amount and takes the bank's as the rate of the card.
 */
function fit(lines: readonly DraftLine[], charge: ChargeRecord, takeAmount: boolean): Money | null {
  const left = leftOf(charge);
  const [only] = lines;
  if (isPartOf(lines, charge, left)) return null;
  if (lines.length === 1 && isAsTaken(only!, charge)) return { amount: charge.amount, currency: charge.currency };
  if (lines.length === 1 && takeAmount && only!.currency === charge.currency)
    return { amount: left, currency: charge.currency };
  if (lines.length === 1 && takeAmount && isForeignOf(only!, charge)) return null;
  throw new Refused('pair-differs', {
    who: lines.length === 1 ? 'The line says' : 'The lines say',
    said: lines.map((l) => `${fromMinor(l.amount, l.currency)} ${l.currency}`).join(' and '),
    takeable: lines.length === 1,
    left: fromMinor(left, charge.currency),
    currency: charge.currency,
  });
}

/** Whether the lines are all that is left of the charge, or a part of one that is divided among several lines. */
function isPartOf(lines: readonly DraftLine[], charge: ChargeRecord, left: bigint): boolean {
  if (lines.some((l) => l.currency !== charge.currency)) return false;
  const sum = lines.reduce((a, l) => a + l.amount, 0n);
  if (sum === left) return true;
  const divided = lines.length > 1 || charge.lines.length > 0;
  return divided && signOf(sum) === signOf(left) && magnitude(sum) < magnitude(left);
}

interface Money {
  amount: bigint;
  currency: string;
}

/** Whether a line is in a currency the bank does not tell of a charge that is on no line yet, and on the same side. */
const isForeignOf = (line: DraftLine, charge: ChargeRecord): boolean =>
  charge.lines.length === 0
  && charge.currency === charge.settledCurrency
  && line.currency !== charge.currency
  && signOf(line.amount) === signOf(charge.amount);

/** Whether a line says what the bank took, in the bank's currency, of a charge that is on no line yet. */
const isAsTaken = (line: DraftLine, charge: ChargeRecord): boolean =>
  charge.lines.length === 0 && line.currency === charge.settledCurrency && line.amount === charge.settledAmount;

async function pairReceipt(trx: Db, actor: Actor, lines: readonly DraftLine[], receiptId: string): Promise<void> {
  for (const line of lines) {
    const receipt = await receiptFor(trx, actor, receiptId, line.number);
    await updateLine(trx, line, { receipt_id: receipt.id });
  }
}

/** Takes charges or receipts off lines again; a line is then as it was before the pair. */
export function undoPairs(
  context: Context,
  actor: Actor,
  { revisions, lines: refs, what }: UnpairRequest,
): Promise<void> {
  const wanted = new Set(namesOf(refs));
  return inTransaction(context, async (trx) => {
    const mine = async () => (await selectDraftLines(trx, actor.id)).filter((l) => wanted.has(refOf(l)));
    const charges = what === 'charge' ? chargesOf(await withParts(trx, actor, await mine())) : [];
    const touch = { act: 'unpair' as const, actor, charges, facts: () => ({ lines: [...wanted], what }) };
    await touchClaims(context, trx, { ...touch, claims: claimsOf(refs, revisions) }, async () => {
      if (what === 'charge') await lockChargesToFree(trx, charges);
      if (what === 'receipt') for (const line of await mine()) await updateLine(trx, line, { receipt_id: null });
      else await unpairCharges(trx, actor, await mine());
    });
  });
}

/** Takes charges off lines; the parts of one line become that line again, and their charges are free too. */
async function unpairCharges(trx: Db, actor: Actor, lines: readonly DraftLine[]): Promise<void> {
  for (const line of await withParts(trx, actor, lines)) {
    if (line.charge_id === null) continue;
    const isPart = line.before_pair?.partOf !== undefined;
    if (isPart) await deleteLine(trx, { claim_id: line.claim_id, version: line.version, id: line.id });
    else await unpairCharge(trx, line);
    if (isPart) await divideAgain(trx, line.charge_id);
  }
}

const chargesOf = (lines: readonly DraftLine[]): string[] =>
  lines.flatMap((l) => (l.charge_id === null ? [] : [String(l.charge_id)]));

async function unpairCharge(trx: Db, line: DraftLine): Promise<void> {
  const before = line.before_pair ?? { rate_kind: 'reference', settled_amount: null, settled_currency: null };
  const { amount, currency } = (line.before_pair ?? {}) as { amount?: string; currency?: string };
  if (amount && currency) await restateLine(trx, line, { amount: BigInt(amount), currency });
  await updateLine(trx, line, { ...before, charge_id: null, before_pair: null });
  await divideAgain(trx, line.charge_id!);
}

async function divideAgain(trx: Db, chargeId: bigint): Promise<void> {
  const [charge] = await selectCharges(trx, { ids: [String(chargeId)] });
  if (charge) await divideCharge(trx, charge);
}
