import { daysBetween } from '../../numbers/isoDate.ts';
import { merchantLikeness } from '../merchants/merchantWords.ts';
import type { Side } from './matching.types.ts';

export interface Score {
  score: number;
  reasons: string[];
}
/** Pairs below this are not worth showing. */
export const LEAST_SCORE = 45;
/** A charge arrives at most this many days after, or before, the day of the line. */
export const MOST_DAYS = 12;

const AMOUNT = 55;
const SETTLED = 48;
const DATE_POINTS: readonly [days: number, points: number][] = [
  [0, 25],
  [1, 22],
  [3, 17],
  [5, 11],
  [MOST_DAYS, 4],
];
const MERCHANT = 20;

/**
 * How likely two sides are the same spending, with the reasons, or null when they cannot be: an amount has to agree to
 * the minor unit, in the currency of the purchase or in what the bank took, and the dates have to be near. Example:
 * same amount, day and merchant → 100; another amount → null.
 */
export function scorePair(left: Side, right: Side): Score | null {
  const amount = amountOf(left, right);
  if (!amount) return null;
  const days = left.date && right.date ? daysBetween(left.date, right.date) : null;
  if (days !== null && Math.abs(days) > MOST_DAYS) return null;
  if (left.card && right.card && left.card !== right.card) return null;
  const date = dateOf(days);
  const likeness = merchantLikeness(left.merchant, right.merchant);
  const score = amount.score + date.score + Math.round(likeness * MERCHANT);
  if (score < LEAST_SCORE) return null;
  return { score, reasons: [amount.reason, date.reason, merchantReason(likeness, left, right)] };
}

function amountOf(left: Side, right: Side): { score: number; reason: string } | null {
  if (left.amount === null || left.amount === 0n) return null;
  if (left.amount === right.amount && left.currency === right.currency) return { score: AMOUNT, reason: 'same amount' };
  const settled = right.settled;
  if (settled && left.amount === settled.amount && left.currency === settled.currency)
    return { score: SETTLED, reason: 'same amount as the bank took' };
  return null;
}

function dateOf(days: number | null): { score: number; reason: string } {
  if (days === null) return { score: 0, reason: 'a date is not known' };
  const far = Math.abs(days);
  const [, score] = DATE_POINTS.find(([most]) => far <= most) ?? [0, 0];
  const unit = far === 1 ? 'day' : 'days';
  return { score, reason: days === 0 ? 'same day' : `${far} ${unit} ${days > 0 ? 'later' : 'earlier'}` };
}

function merchantReason(likeness: number, left: Side, right: Side): string {
  if (!left.merchant || !right.merchant) return 'a merchant is not known';
  return likeness === 1 ? 'same merchant' : likeness >= 0.5 ? 'similar merchant' : 'other merchant';
}
