import type { Claim } from '../../../core/documents/case.schema.ts';
import type { ChargeEvidence, Evidence, ReceiptEvidence } from '../../../core/evidence/comparisons/tie.types.ts';
import type { Reading } from '../../../core/evidence/reading/reading.types.ts';
import { fromMinor, readAmount } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { ClaimRow } from './claims.queries.ts';
import type { VersionKey } from './versionKey.ts';
import { drivenBefore } from './driven.ts';
import { selectLineCharges, type LineChargeRow, type ReceiptRow } from './evidence.queries.ts';
import { selectDuplicates } from './selectDuplicates.ts';
import { alikeOfDraft, type WrittenDraft } from './writtenDraft.ts';

const FACTS = ['amount', 'currency', 'date', 'merchant', 'taxNumber'] as const;
type Fact = (typeof FACTS)[number];

/** What a receipt shows: what its owner confirmed, else what was read; and where the two differ. */
export function receiptEvidence(receipt: ReceiptRow): ReceiptEvidence {
  const id = String(receipt.id);
  const said: Record<Fact, string | null> = {
    amount: receipt.amount === null ? null : fromMinor(receipt.amount, receipt.currency!),
    currency: receipt.currency,
    date: receipt.date,
    merchant: receipt.merchant,
    taxNumber: receipt.tax_number,
  };
  const whole = readWhole(receipt.reading);
  const nothingSaid = receipt.confirmed_at === null && FACTS.every((f) => said[f] === null);
  if (nothingSaid && receipt.reading) return { id, ...readFacts(receipt), ...whole, changed: [] };
  return { id, ...said, ...whole, changed: changedFacts(receipt, said) };
}

/** What was bought and that it was paid, which is read and not asked of anybody; nothing where nobody looked for it. */
function readWhole(reading: Reading | null): Pick<ReceiptEvidence, 'bought' | 'paid'> {
  if (!reading) return { bought: null, paid: null };
  const { bought, paid } = reading;
  const [first, ...more] = bought ?? [];
  const words = first && (more.length > 0 ? `${first.text} and ${more.length} more` : first.text);
  return { ...(bought && { bought: words ?? null }), ...(paid !== undefined && { paid: paid?.value ?? null }) };
}

const readFact = ({ reading }: ReceiptRow, fact: Fact): string | null => reading?.[fact]?.value ?? null;
const readFacts = (receipt: ReceiptRow) =>
  Object.fromEntries(FACTS.map((f) => [f, readFact(receipt, f)])) as Record<Fact, string | null>;

/** What the machine read, not doubtfully, and a person said otherwise. Merchants are written in many ways and do not count. */
function changedFacts(receipt: ReceiptRow, said: Record<Fact, string | null>): ReceiptEvidence['changed'] {
  return FACTS.filter((f) => f !== 'merchant').flatMap((fact) => {
    const found = receipt.reading?.[fact];
    if (!found || found.sure === 'doubtful' || found.value === said[fact]) return [];
    return [{ fact: fact === 'taxNumber' ? 'tax number' : fact, read: found.value, sure: found.sure === 'sure' }];
  });
}

/** The receipt as the case document holds it. An amount that was read without a currency, or not to its decimals, is left out. */
export function writeReceipt(receipt: ReceiptRow) {
  const evidence = receiptEvidence(receipt);
  const fields = Object.fromEntries(FACTS.map((f) => [f, evidence[f]])) as Record<Fact, string | null>;
  const known =
    fields.amount !== null && fields.currency !== null && readAmount(fields.amount, fields.currency) !== null;
  return { ...fields, amount: known ? fields.amount : null };
}

const chargeEvidence = (charge: LineChargeRow): ChargeEvidence => ({
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

const mapValues = <A, B>(map: ReadonlyMap<string, A>, write: (value: A) => B): Record<string, B> =>
  Object.fromEntries([...map].map(([key, value]) => [key, write(value)]));

/**
 * What the lines of a version are compared with. Receipts of a submitted version are those it was submitted with, whatever
 * became of them since; charges and what looks alike on other claims are as they are now.
 * @param draft what is remembered of a version that is being written, so that not all is looked for at each edit
 */
export async function readEvidence(
  db: Db,
  { claim, lines }: { claim: ClaimRow; lines: Claim['lines'] },
  receipts: ReadonlyMap<string, ReceiptRow> | Evidence['receipts'],
  draft: WrittenDraft | null = null,
): Promise<Evidence> {
  const key: VersionKey = { claim_id: claim.id, version: claim.version };
  const driven = await drivenBefore(db, claim, lines);
  const papers = {
    receipts: receipts instanceof Map ? mapValues(receipts, receiptEvidence) : (receipts as Evidence['receipts']),
    charges: mapValues(await selectLineCharges(db, key), chargeEvidence),
  };
  const of = draft && { draft, key, number: claim.number };
  return {
    ...papers,
    ...(of ? await alikeOfDraft(db, of, lines, papers) : await selectDuplicates(db, key)),
    ...(Object.keys(driven).length > 0 ? { driven } : {}),
  };
}
