import type { Line } from '../../documents/case.schema.ts';
import { fromMinor } from '../../numbers/amount.ts';
import { compareDate, compareMerchant, present, same, signed } from './_lib/compare.ts';
import { fromComparisons, worst } from './_lib/states.ts';
import { sumOnReceipt } from './paperParts.ts';
import type { ChargeEvidence, Comparison, ReceiptEvidence, Tie } from './tie.types.ts';

/** A line's receipt and what the whole claim says about it. */
export interface ReceiptContext {
  receipt: ReceiptEvidence;
  /** All lines that use the receipt, this one included. */
  sharing: readonly Line[];
  /** The merchant's tax number is needed on this line, because tax is to be reclaimed. */
  taxNumberNeeded: boolean;
  /** A charge of the bank that one of those lines is paired with. */
  charge: ChargeEvidence | null;
}

/**
 * Receipt with line: amount, currency, date, merchant, what was bought, what proves the payment and, where tax is reclaimed,
 * the tax number. A receipt used by several lines is compared with their sum, and what is about the paper itself is compared
 * once, at the first of them. A line without a receipt is open, but for distances and days away, which nobody gives a receipt
 * for. Example: 20.00 EUR claimed, 19.00 EUR on the receipt → off by 1.00.
 */
export function tieReceipt(line: Line, context: ReceiptContext | null): Tie {
  if (!context) return nothingThere(line);
  const { receipt } = context;
  const amount = compareAmount(line, context);
  const comparisons = [
    amount.comparison,
    same('currency', line.currency, receipt.currency),
    compareDate(line.date, receipt.date),
    compareMerchant(line.merchant ?? null, receipt.merchant),
    ...(line.id === context.sharing[0]!.id ? [...compareWhole(context), ...receipt.changed.map(changedByHand)] : []),
    ...(context.taxNumberNeeded ? [present('tax number', receipt.taxNumber)] : []),
  ];
  const firstOff = comparisons.find((c) => c.state === worst(comparisons.map((x) => x.state)) && c.state === 'off');
  return {
    ...fromComparisons(line.id, 'receipt', comparisons),
    difference: firstOff?.difference ?? null,
    steps: amount.steps,
  };
}

/**
 * Whether the paper is complete: that it says what was bought, and that somebody paid it. A charge of the bank proves the
 * payment as well; what the organisation pays itself needs no proof here.
 */
function compareWhole({ receipt, charge, sharing }: ReceiptContext): Comparison[] {
  const { bought, paid } = receipt;
  const proof = paid ?? (charge && `charged to card ${charge.card} on ${charge.purchasedOn}`);
  return [
    ...(bought === undefined ? [] : [present('what was bought', bought)]),
    ...(paid === undefined || sharing.every((l) => l.paidBy === 'central') ? [] : [present('proof of payment', proof)]),
  ];
}

const nothingThere = (line: Line): Tie => ({
  ...{ line: line.id, kind: 'receipt', state: line.journey || line.stay ? 'none' : 'open' },
  ...{ difference: null, comparisons: [], steps: [] },
});

function compareAmount(line: Line, { receipt, sharing: all }: ReceiptContext) {
  const sharing = all.filter((l) => l.currency === line.currency);
  const { claimed, shown } = sumOnReceipt(receipt, sharing, line.currency);
  const difference = shown === null ? null : claimed - shown;
  const comparison: Comparison = {
    fact: sharing.length > 1 ? `amount of ${sharing.length} lines` : 'amount',
    claimed: fromMinor(claimed, line.currency),
    evidence: receipt.amount,
    difference: difference ? signed(fromMinor(difference, line.currency)) : null,
    tolerance: '0',
    state: difference === null ? (receipt.amount === null ? 'open' : 'off') : difference === 0n ? 'tied' : 'off',
  };
  const steps = [
    ...sharing.map((l) => ({ label: `Line ${l.id}`, value: `${l.amount} ${l.currency}`, source: l.merchant ?? null })),
    ...(receipt.amount
      ? [{ label: 'Receipt total', value: `${receipt.amount} ${receipt.currency}`, source: receipt.merchant }]
      : []),
  ];
  return { comparison: atFirst(line, sharing, comparison), steps: sharing.length > 1 ? steps : [] };
}

/** What is about several lines together stands at the first: whoever decides it, decides it once. */
function atFirst(line: Line, sharing: readonly Line[], comparison: Comparison): Comparison {
  const first = sharing[0]!.id;
  if (line.id === first) return comparison;
  return { ...comparison, fact: `${comparison.fact}, compared at line ${first}`, difference: null, state: 'tied' };
}

/** What its owner says against what was read stays in sight: the reviewer looks at the receipt and decides. */
function changedByHand({ fact, read, sure }: ReceiptEvidence['changed'][number]): Comparison {
  const difference = sure ? 'changed by hand, read with certainty' : 'changed by hand';
  return { fact: `${fact} as read`, claimed: null, evidence: read, difference, tolerance: null, state: 'open' };
}
