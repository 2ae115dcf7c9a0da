import { compute } from '../../platform/compute/compute.ts';
import type { Pair, Side } from '../../../core/evidence/matching/matching.types.ts';
import { fromMinor, readAmount } from '../../../core/numbers/amount.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { selectCharges, type ChargeRecord } from '../../records/cards/cards.queries.ts';
import { leftOf, standingOf, writeCharge } from '../../records/cards/charges.ts';
import { selectOwnReceipts, type ReceiptRecord } from '../../records/receipts/receipts.queries.ts';
import { estimatesIn } from './estimates.ts';
import { refOf, selectDraftLines, selectDrafts, type DraftLine } from './gather.queries.ts';

/** The lines of a person's drafts, their free charges and receipts, and which of them look like the same spending. */
export async function viewPairs({ db }: Pick<Context, 'db'>, actor: Actor) {
  const [drafts, lines, charges, receipts] = await Promise.all([
    selectDrafts(db, actor.id),
    selectDraftLines(db, actor.id),
    selectCharges(db, { holderId: actor.id }),
    selectOwnReceipts(db, actor.id),
  ]);
  const free = charges.filter((c) => ['open', 'partly on claims'].includes(standingOf(c)));
  const loose = receipts.filter((r) => r.usedOn.length === 0);
  const estimate = await estimatesIn(db, [...lines, ...loose.map(shownBy)], free, charges);
  const open = free.filter((c) => standingOf(c) === 'open').map(sideOfCharge);
  const unpaired = lines
    .filter((l) => l.charge_id === null && l.paid_by !== 'central')
    .map(sideOfLine)
    .map(estimate);
  const bare = lines.filter((l) => l.receipt_id === null).map(sideOfLine);
  const papers = loose.map(sideOfReceipt);
  return {
    revisions: Object.fromEntries(drafts.map((d) => [d.number, d.revision])),
    drafts: drafts.map((d) => ({ number: d.number, purpose: d.purpose, revision: d.revision })),
    lines: lines.map(writeLine),
    charges: free.map(writeCharge),
    receipts: loose.map(writeReceiptSide),
    proposals: {
      charges: await paired(unpaired, free.map(sideOfCharge)),
      receipts: (await paired(bare, papers)).filter(ofOneEach),
      /** Receipts and charges that are on no line yet, to be put on a claim together. */
      spendings: (await paired(papers.map(estimate), open)).filter(ofOneEach),
    } satisfies Record<string, Pair[]>,
  };
}

const ofOneEach = ({ left, right }: Pair): boolean => left.length === 1 && right.length === 1;

/** Pairs of both sides; about fifty comparisons cost what a part of a claim does. */
const paired = (lefts: Side[], rights: Side[]): Promise<Pair[]> =>
  compute('pairUp', (lefts.length * rights.length) / 50, lefts, rights);

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
    return { amount: r.amount, currency: r.currency, date: r.date, merchant: r.merchant, digits: r.cardDigits };
  const { amount, currency, date, merchant, cardDigits } = r.reading ?? {};
  const minor = amount && currency ? readAmount(amount.value, currency.value) : null;
  return {
    amount: minor,
    currency: currency?.value ?? null,
    date: date?.value ?? null,
    merchant: merchant?.value ?? null,
    digits: cardDigits?.value ?? null,
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
  digits: c.digits,
});
const sideOfReceipt = (r: ReceiptRecord): Side => ({ id: String(r.id), ...shownBy(r) });
