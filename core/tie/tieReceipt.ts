import { daysBetween } from '../dates/isoDate.ts';
import type { Line } from '../formats/case.schema.ts';
import { fromMinor, readAmount } from '../money/amount.ts';
import { fromComparisons, worst } from './_lib/states.ts';
import type { Comparison, ReceiptEvidence, Tie } from './tie.types.ts';

/** A line's receipt and what the whole claim says about it. */
export interface ReceiptContext {
  receipt: ReceiptEvidence;
  /** All lines that use the receipt, this one included. */
  sharing: readonly Line[];
  /** The merchant's tax number is needed on this line, because tax is to be reclaimed. */
  taxNumberNeeded: boolean;
}

/**
 * Receipt with line: amount, currency, date, merchant and, where tax is reclaimed, the tax number. A receipt used by
 * several lines is compared with their sum. A line without a receipt is open.
 */
export function tieReceipt(line: Line, context: ReceiptContext | null): Tie {
  if (!context) return { line: line.id, kind: 'receipt', state: 'open', difference: null, comparisons: [], steps: [] };
  const { receipt } = context;
  const amount = compareAmount(line, context);
  const comparisons = [
    amount.comparison,
    same('currency', line.currency, receipt.currency),
    compareDate(line.date, receipt.date),
    compareMerchant(line.merchant ?? null, receipt.merchant),
    ...(context.taxNumberNeeded ? [present('tax number', receipt.taxNumber)] : []),
  ];
  const firstOff = comparisons.find((c) => c.state === worst(comparisons.map((x) => x.state)) && c.state === 'off');
  return {
    ...fromComparisons(line.id, 'receipt', comparisons),
    difference: firstOff?.difference ?? null,
    steps: amount.steps,
  };
}

function compareAmount(line: Line, { receipt, sharing: all }: ReceiptContext) {
  const sharing = all.filter((l) => l.currency === line.currency);
  const claimed = sharing.reduce((a, l) => a + readAmount(l.amount, l.currency)!, 0n);
  const shown = receipt.amount === null ? null : readAmount(receipt.amount, receipt.currency ?? line.currency);
  const comparable = shown !== null && receipt.currency === line.currency;
  const difference = comparable ? claimed - shown : null;
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
  return { comparison, steps: sharing.length > 1 ? steps : [] };
}

function compareDate(claimed: string, shown: string | null): Comparison {
  const days = shown === null ? 0 : daysBetween(shown, claimed);
  const difference = days === 0 ? null : `${signed(String(days))} ${Math.abs(days) === 1 ? 'day' : 'days'}`;
  return {
    fact: 'date',
    claimed,
    evidence: shown,
    difference,
    tolerance: '0 days',
    state: shown === null ? 'open' : days === 0 ? 'tied' : 'off',
  };
}

function same(fact: string, claimed: string, shown: string | null): Comparison {
  const state = shown === null ? 'open' : shown === claimed ? 'tied' : 'off';
  return {
    fact,
    claimed,
    evidence: shown,
    difference: state === 'off' ? `${claimed} ≠ ${shown}` : null,
    tolerance: null,
    state,
  };
}

function present(fact: string, shown: string | null): Comparison {
  return {
    fact,
    claimed: 'needed',
    evidence: shown,
    difference: null,
    tolerance: null,
    state: shown ? 'tied' : 'open',
  };
}

/** Merchants agree when all words of the shorter name stand in the longer one; case, accents and legal forms aside. */
function compareMerchant(claimed: string | null, shown: string | null): Comparison {
  const row = { fact: 'merchant', claimed, evidence: shown, difference: null, tolerance: 'same words' };
  if (!claimed || !shown) return { ...row, state: 'open' };
  const [a, b] = [wordsOf(claimed), wordsOf(shown)];
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  const agree = short.length > 0 && short.every((word) => long.includes(word));
  return agree ? { ...row, state: 'tied' } : { ...row, difference: 'other merchant', state: 'off' };
}

const LEGAL = new Set(['ltd', 'limited', 'plc', 'inc', 'llc', 'gmbh', 'as', 'ab', 'sa', 'lda', 'kk', 'co', 'the']);

function wordsOf(name: string): string[] {
  const plain = name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  return plain.split(/[^\p{L}\p{N}]+/u).filter((word) => word && !LEGAL.has(word));
}

const signed = (figure: string): string => (figure.startsWith('-') ? `−${figure.slice(1)}` : `+${figure}`);
