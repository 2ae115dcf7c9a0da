import type { TaxCode } from '../../../core/documents/case.schema.ts';
import { fromMinor, readAmount, toMinor } from '../../../core/numbers/amount.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectTaxCodes } from '../book/book.queries.ts';
import { lockCharges, selectCharges, type ChargeRecord } from '../cards/cards.queries.ts';
import { leftOf, stateOf } from '../cards/cards.service.ts';
import { inTransaction } from '../claims/access.ts';
import { insertLine, selectClaim, selectLines, type ClaimRow, type LineRecord } from '../claims/claims.queries.ts';
import { record } from '../claims/review.service.ts';
import { selectReceipt, type ReceiptRecord } from '../receipts/receipts.queries.ts';
import { selectCard } from '../statements/statements.queries.ts';
import { lockDraft, refreshDraft } from './draft.service.ts';
import { insertClaim, nextClaimNumber, selectPerson, selectUsualCoding } from './gather.queries.ts';
import type { Take } from './gather.schema.ts';
import { settleCharge } from './settleCharge.ts';
import { countryOfTaxNumber, proposeTaxes, type ShownTax } from './proposeTaxes.ts';

/** Puts receipts and charges on a draft as lines, or begins a claim with them; the number of the claim. */
export function takeOnClaim(context: Context, actor: Actor, request: Take): Promise<string> {
  return inTransaction(context, async (trx) => {
    const claim = request.claim
      ? await lockDraft(trx, actor, request.claim)
      : await beginClaim(trx, context, actor, request.purpose ?? null);
    const charges = request.take.flatMap((t) => (t.charge ? [t.charge] : []));
    await lockCharges(trx, charges);
    const book = await selectTaxCodes(trx);
    const lines = await selectLines(trx, { claim_id: claim.id, version: claim.version });
    let next = lines.reduce((a, l) => Math.max(a, /^\d+$/.test(l.id) ? Number(l.id) : 0), 0) + 1;
    let position = lines.length ? lines.length + 1 : 0;
    const made: string[] = [];
    for (const one of request.take) {
      const evidence = await evidenceOf(trx, actor, one);
      if (evidence.charge && (await selectCard(trx, evidence.charge.card))!.entity_id !== claim.entity_id)
        throw new Refused('invalid', {
          problem: `The card ${evidence.charge.card} belongs to another entity than claim ${claim.number}.`,
        });
      const id = String(next++);
      await insertLine(
        trx,
        { claim_id: claim.id, version: claim.version },
        position++,
        lineOf(id, one, evidence, book),
      );
      if (evidence.charge) await settleCharge(trx, evidence.charge);
      made.push(id);
    }
    await refreshDraft(trx, context, claim);
    await record(trx, context, actor, claim, 'gathered', { revision: claim.revision, lines: made });
    return claim.number;
  });
}

async function beginClaim(trx: Db, context: Context, actor: Actor, purpose: string | null): Promise<ClaimRow> {
  if (!purpose) throw new Refused('invalid', { problem: 'Say what the claim is for.', path: 'purpose' });
  const person = await selectPerson(trx, actor.id);
  const number = await nextClaimNumber(trx);
  const coding = JSON.stringify(await selectUsualCoding(trx, actor.id));
  await insertClaim(trx, {
    number,
    entity_id: person.entity_id,
    claimant_id: actor.id,
    preparer_id: actor.id,
    currency: person.currency,
    purpose,
    coding,
  });
  const claim = (await selectClaim(trx, number))!;
  await record(trx, context, actor, claim, 'drafted', { revision: 1, version: 1, state: 'draft' });
  return claim;
}

interface Taken {
  receipt: ReceiptRecord | null;
  charge: ChargeRecord | null;
}

async function evidenceOf(trx: Db, actor: Actor, one: Take['take'][number]): Promise<Taken> {
  const receipt = one.receipt ? ((await selectReceipt(trx, BigInt(one.receipt))) ?? null) : null;
  const [charge = null] = one.charge ? await selectCharges(trx, { holderId: actor.id, ids: [one.charge] }) : [];
  if (one.receipt && receipt?.ownerId !== actor.id) throw new Refused('not-found', { what: 'receipt' });
  if (one.charge && !charge) throw new Refused('not-found', { what: 'charge' });
  if (!receipt && !charge) throw new Refused('invalid', { problem: 'Choose a receipt or a charge for each line.' });
  if (receipt?.usedOn[0] && !charge)
    throw new Refused('receipt-in-use', { claim: receipt.usedOn[0].claim, state: receipt.usedOn[0].state });
  if (charge && (stateOf(charge) === 'claimed already' || leftOf(charge) === 0n))
    throw new Refused('charge-in-use', {
      merchant: charge.merchant,
      state: charge.mark ? 'marked as claimed already' : `on claim ${charge.lines[0]!.claim}`,
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
    throw new Refused('invalid', {
      problem: `Look at the receipt ${receipt.name} and confirm what it shows: not everything on it was read with certainty.`,
    });
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
    throw new Refused('invalid', {
      problem: `Choose a category for ${charge?.merchant ?? receipt?.name ?? 'the line'}.`,
      path: 'category',
    });
  if (one.personal && !charge)
    throw new Refused('invalid', {
      problem: 'Only what was paid by company card can be private; leave out what you paid yourself.',
    });
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
