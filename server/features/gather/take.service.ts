import type { TaxCode } from '../../../core/documents/case.schema.ts';
import { fromMinor, readAmount, toMinor } from '../../../core/numbers/amount.ts';
import type { Take } from '../../../contract/gather.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectTaxCodes } from '../../records/book/book.queries.ts';
import { lockCharges, selectCharges, type ChargeRecord } from '../../records/cards/cards.queries.ts';
import { leftOf, standingOf } from '../../records/cards/charges.ts';
import { beginClaim, usualCoding } from '../../records/claims/beginClaim.ts';
import type { LockedClaim, SeenClaim } from '../../records/claims/claimStore.ts';
import { updateClaim } from '../../records/claims/claims.queries.ts';
import { insertLines, selectLines, type LineRecord } from '../../records/claims/lines.queries.ts';
import { lastOf } from '../../records/claims/lineNumbers.ts';
import { lockReceipts, receiptFor } from '../../records/receipts/receiptFor.ts';
import type { ReceiptRecord } from '../../records/receipts/receipts.queries.ts';
import { divideCharge } from '../../records/claims/divideCharge.ts';
import { countryOfTaxNumber, proposeTaxes, type ShownTax } from '../../../core/evidence/matching/proposeTaxes.ts';
import { touchClaims } from '../../records/claims/touchClaims.ts';

/** Puts receipts and charges on a claim in preparation as lines, or begins a claim with them; the number of the claim. */
export function takeOnClaim(context: Context, actor: Actor, { claim, purpose, take }: Take): Promise<string> {
  return inTransaction(context, async (trx) => {
    const seen = claim ?? (await begin(trx, context, actor, purpose ?? null));
    const charges = take.flatMap((t) => (t.charge ? [t.charge] : []));
    const made: string[] = [];
    const touch = { act: 'gather' as const, actor, claims: [seen], charges, facts: () => ({ lines: made }) };
    await touchClaims(context, trx, touch, async (claims) => {
      await lockCharges(trx, charges);
      await lockReceipts(
        trx,
        take.flatMap((t) => (t.receipt ? [t.receipt] : [])),
      );
      made.push(...(await addLines(trx, actor, claims.get(seen.number)!, take)));
    });
    return seen.number;
  });
}

/** Adds a line for each thing taken; their ids. */
async function addLines(trx: Db, actor: Actor, { row, at }: LockedClaim, take: Take['take']): Promise<string[]> {
  const codes = await selectTaxCodes(trx);
  const last = lastOf(row.last_line, await selectLines(trx, at));
  const [first, after] = [last.number + 1, last.position + 1];
  await updateClaim(trx, row.id, { last_line: first + take.length - 1 });
  for (const [i, one] of take.entries()) {
    const evidence = await evidenceOf(trx, actor, row.number, one);
    await insertLines(trx, at, after + i, [lineOf(String(first + i), one, evidence, codes)]);
    if (evidence.charge) await divideCharge(trx, evidence.charge);
  }
  return take.map((_, i) => String(first + i));
}

async function begin(trx: Db, context: Context, actor: Actor, purpose: string | null): Promise<SeenClaim> {
  if (!purpose) throw new Refused('purpose-missing', { path: 'purpose' });
  const coding = await usualCoding(trx, actor.id);
  const { number, revision } = await beginClaim(context, trx, actor, { claimant: actor.id, purpose, coding });
  return { number, revision };
}

interface Taken {
  receipt: ReceiptRecord | null;
  charge: ChargeRecord | null;
}

async function evidenceOf(trx: Db, actor: Actor, claim: string, one: Take['take'][number]): Promise<Taken> {
  const receipt = one.receipt ? await receiptFor(trx, actor, one.receipt, claim) : null;
  const [charge = null] = one.charge ? await selectCharges(trx, { holderId: actor.id, ids: [one.charge] }) : [];
  if (one.charge && !charge) throw new Refused('not-found', { what: 'charge' });
  if (!receipt && !charge) throw new Refused('nothing-chosen');
  // taken by itself a second time, on one claim too, it would be claimed twice
  if (receipt?.usedOn[0] && !charge)
    throw new Refused('receipt-in-use', { claim: receipt.usedOn[0].claim, state: receipt.usedOn[0].state });
  if (charge?.amount === 0n) throw new Refused('charge-empty', { merchant: charge.merchant });
  if (charge && (standingOf(charge) === 'claimed already' || leftOf(charge) === 0n))
    throw new Refused('charge-in-use', {
      merchant: charge.merchant,
      state: charge.marked ? 'marked as claimed already' : `on claim ${charge.lines[0]!.claim}`,
    });
  return { receipt, charge };
}

/** What a receipt shows: confirmed by its owner, or read with certainty. */
function shownOn(receipt: ReceiptRecord): {
  amount: bigint;
  currency: string;
  date: string;
  merchant: string;
  taxNumber: string | null;
  taxes: ShownTax[];
} {
  if (receipt.confirmedAt)
    return {
      amount: receipt.amount!,
      currency: receipt.currency!,
      date: receipt.date!,
      merchant: receipt.merchant!,
      taxNumber: receipt.taxNumber,
      taxes: receipt.taxes,
    };
  const { amount, currency, date, merchant, taxNumber, taxes } = receipt.reading ?? {};
  const facts = [amount, currency, date, merchant];
  const minor = amount && currency ? readAmount(amount.value, currency.value) : null;
  if (minor === null || facts.some((f) => f?.sure !== 'sure'))
    throw new Refused('receipt-unconfirmed', { name: receipt.name });
  return {
    amount: minor,
    currency: currency!.value,
    date: date!.value,
    merchant: merchant!.value,
    taxNumber: taxNumber?.value ?? null,
    taxes: taxes ?? [],
  };
}

function lineOf(
  id: string,
  one: Take['take'][number],
  { receipt, charge }: Taken,
  codes: readonly TaxCode[],
): LineRecord {
  const category = one.personal ? null : (one.category ?? charge?.category ?? null);
  if (!category && !one.personal)
    throw new Refused('category-missing', { what: charge?.merchant ?? receipt?.name ?? 'the line', path: 'category' });
  if (one.personal && !charge) throw new Refused('private-needs-card');
  const shown = receipt ? (charge && !receipt.confirmedAt && !receipt.reading ? null : shownOn(receipt)) : null;
  const money = charge
    ? { amount: leftOf(charge), currency: charge.currency }
    : { amount: shown!.amount, currency: shown!.currency };
  const country = charge?.country ?? countryOfTaxNumber(shown?.taxNumber ?? null, codes);
  const date = charge?.purchasedOn ?? shown!.date;
  const amount = fromMinor(money.amount, money.currency);
  const taxes =
    one.personal || !shown || shown.currency !== money.currency
      ? []
      : proposeTaxes(shown.taxes, codes, { amount, currency: money.currency, country, date });
  return {
    line: {
      id,
      date,
      category,
      paid_by: charge ? 'card' : 'own',
      card: charge?.card ?? null,
      ...money,
      country,
      merchant: charge?.merchant ?? shown!.merchant,
      description: null,
      personal: one.personal,
      rate_kind: charge ? 'card' : 'reference',
      settled_amount: charge?.settledAmount ?? null,
      settled_currency: charge?.settledCurrency ?? null,
      receipt_id: receipt?.id ?? null,
      charge_id: charge?.id ?? null,
    },
    items: [],
    taxEntries: taxes.map((t) => ({
      item_id: null,
      code: t.code,
      gross: t.gross ? toMinor(t.gross, money.currency) : null,
      tax: t.tax ? toMinor(t.tax, money.currency) : null,
    })),
    shares: [],
  };
}
