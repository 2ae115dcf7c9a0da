import { addDays } from '../../../core/numbers/isoDate.ts';
import type { Case, Item, Line } from '../../../core/documents/case.schema.ts';
import { fromMinor, readAmount } from '../../../core/numbers/amount.ts';
import type { ChargeEvidence, Evidence, ReceiptEvidence } from '../../../core/evidence/comparisons/tie.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { MAX_RATE_AGE, selectBook } from '../book/book.queries.ts';
import {
  selectItems,
  selectLines,
  selectShares,
  selectTaxEntries,
  selectWantedAdvances,
  type ClaimRow,
  type ItemRow,
  type LineRow,
  type ShareRow,
  type TaxEntryRow,
} from './claims.queries.ts';

import { selectLineCharges, selectLineReceipts, type LineChargeRow, type ReceiptRow } from './evidence.queries.ts';
import { selectDuplicates } from './selectDuplicates.ts';

/** A claim as `assess` takes it, and the receipts its lines are compared with. */
export interface BuiltCase {
  document: Case;
  evidence: Evidence;
  receipts: Map<string, ReceiptRow>;
}

/** The case of a claim's current version from the database, for a posting date. */
export async function buildCase(db: Db, claim: ClaimRow, postingDate: string): Promise<BuiltCase> {
  const key = { claim_id: claim.id, version: claim.version };
  const lines = await selectLines(db, key);
  // One after the other: inside a transaction there is one connection, which takes one query at a time.
  const parts = {
    items: await selectItems(db, key),
    taxEntries: await selectTaxEntries(db, key),
    shares: await selectShares(db, key),
  };
  const advances = await selectWantedAdvances(db, key);
  const receipts = await selectLineReceipts(db, key);
  const document: Case = {
    format: 'ebbet-case/1',
    postingDate,
    claim: {
      number: claim.number,
      version: claim.version,
      entity: claim.entity_id,
      claimant: claim.claimant_id,
      currency: claim.currency,
      purpose: claim.purpose,
      from: claim.trip_from,
      to: claim.trip_to,
      submittedOn: claim.submitted_on ?? postingDate,
      coding: claim.coding,
      plan: claim.plan,
      advances: advances.map((a) => ({
        advance: a.advance_id,
        upTo: a.up_to === null ? null : fromMinor(a.up_to, claim.currency),
      })),
      lines: lines.map((line) => writeLine(line, parts, receipts.get(line.id))),
    },
    book: await selectBook(db, {
      entityId: claim.entity_id,
      claimantId: claim.claimant_id,
      claimId: claim.id,
      advanceIds: advances.map((a) => a.advance_id),
      ...rateScope(claim, lines, postingDate),
    }),
  };
  const charges = await selectLineCharges(db, key);
  const evidence = {
    receipts: mapValues(receipts, writeEvidence),
    charges: mapValues(charges, writeCharge),
    duplicates: await selectDuplicates(db, key),
  };
  return { document, evidence, receipts };
}

/** Which quotes the claim's own amounts can need. */
function rateScope(claim: ClaimRow, lines: LineRow[], postingDate: string) {
  const dates = [...lines.map((l) => l.date), claim.submitted_on ?? postingDate, postingDate].sort();
  const currencies = [
    claim.currency,
    ...lines.flatMap((l) => [l.currency, ...(l.settled_currency ? [l.settled_currency] : [])]),
  ];
  return { currencies: [...new Set(currencies)], ratesFrom: addDays(dates[0]!, -MAX_RATE_AGE), ratesTo: dates.at(-1)! };
}

interface Parts {
  items: ItemRow[];
  taxEntries: TaxEntryRow[];
  shares: ShareRow[];
}

function writeLine(row: LineRow, parts: Parts, receipt: ReceiptRow | undefined): Line {
  const items = parts.items.filter((item) => item.line_id === row.id);
  return {
    id: row.id,
    date: row.date,
    category: row.category,
    nights: row.nights,
    attendees: row.attendees,
    fields: row.fields,
    paidBy: row.paid_by,
    card: row.card,
    amount: fromMinor(row.amount, row.currency),
    currency: row.currency,
    country: row.country,
    merchant: row.merchant,
    description: row.description,
    personal: row.personal,
    rate: writeRate(row),
    receipt: receipt ? withoutId(writeEvidence(receipt)) : null,
    coding: row.coding,
    tax: items.length ? [] : writeTax(parts, row, null),
    split: items.length ? null : writeSplit(parts, row.id, null, row.split_by),
    items: items.map((item) => writeItem(row, item, parts)),
  };
}

function writeItem(line: LineRow, item: ItemRow, parts: Parts): Item {
  return {
    id: item.id,
    category: item.category,
    amount: fromMinor(item.amount, line.currency),
    description: item.description,
    personal: item.personal,
    tax: writeTax(parts, line, item.id),
    coding: item.coding,
    split: writeSplit(parts, line.id, item.id, item.split_by),
  };
}

function writeRate(row: LineRow): Line['rate'] {
  switch (row.rate_kind) {
    case 'reference':
      return { kind: 'reference' };
    case 'own':
      return { kind: 'own', value: row.rate_value! };
    case 'card':
      return {
        kind: 'card',
        settled: { amount: fromMinor(row.settled_amount!, row.settled_currency!), currency: row.settled_currency! },
      };
    default:
      return row.rate_kind satisfies never;
  }
}

function writeTax({ taxEntries }: Parts, line: LineRow, item: string | null) {
  const write = (minor: bigint | null) => (minor === null ? null : fromMinor(minor, line.currency));
  return taxEntries
    .filter((entry) => entry.line_id === line.id && entry.item_id === item)
    .map((entry) => ({ code: entry.code, gross: write(entry.gross), tax: write(entry.tax) }));
}

function writeSplit({ shares }: Parts, line: string, item: string | null, by: LineRow['split_by']): Line['split'] {
  if (by === null) return null;
  return {
    by,
    shares: shares
      .filter((s) => s.line_id === line && s.item_id === item)
      .map(({ coding, value }) => ({ coding, value })),
  };
}

const mapValues = <A, B>(map: Map<string, A>, write: (value: A) => B): Record<string, B> =>
  Object.fromEntries([...map].map(([key, value]) => [key, write(value)]));

/** What a receipt shows: what its owner confirmed, else what was read; and where the two differ. */
export function writeEvidence(receipt: ReceiptRow): ReceiptEvidence {
  const { reading } = receipt;
  const id = String(receipt.id);
  const stored = {
    amount: receipt.amount === null ? null : fromMinor(receipt.amount, receipt.currency!),
    currency: receipt.currency,
    date: receipt.date,
    merchant: receipt.merchant,
    taxNumber: receipt.tax_number,
  };
  const facts = ['amount', 'currency', 'date', 'merchant', 'taxNumber'] as const;
  const untouched = receipt.confirmed_at === null && reading !== null && facts.every((f) => stored[f] === null);
  const read = (fact: (typeof facts)[number]) => reading?.[fact]?.value ?? null;
  if (untouched)
    return {
      id,
      amount: read('amount'),
      currency: read('currency'),
      date: read('date'),
      merchant: read('merchant'),
      taxNumber: read('taxNumber'),
      changed: [],
    };
  const changed = facts.filter(
    (f) => reading && f !== 'merchant' && read(f) !== null && reading[f]!.sure !== 'doubtful' && read(f) !== stored[f],
  );
  return {
    id,
    ...stored,
    changed: changed.map((f) => ({
      fact: f === 'taxNumber' ? 'tax number' : f,
      read: read(f)!,
      sure: reading![f]!.sure === 'sure',
    })),
  };
}

const writeCharge = (charge: LineChargeRow): ChargeEvidence => ({
  id: String(charge.id),
  card: charge.card_id,
  amount: fromMinor(charge.amount, charge.currency),
  currency: charge.currency,
  elsewhere: fromMinor(charge.elsewhere, charge.currency),
  settled: { amount: fromMinor(charge.settled_amount, charge.settled_currency), currency: charge.settled_currency },
  purchasedOn: charge.purchased_on,
  bookedOn: charge.booked_on,
  merchant: charge.merchant,
});

/** The receipt as the case document holds it. An amount that was read without a currency, or not to its decimals, is left out. */
function withoutId({ id: _, changed: __, ...fields }: ReceiptEvidence) {
  const known =
    fields.amount !== null && fields.currency !== null && readAmount(fields.amount, fields.currency) !== null;
  return { ...fields, amount: known ? fields.amount : null };
}
