import { daysBetween } from '../../numbers/isoDate.ts';
import { merchantSameness } from '../merchants/merchantWords.ts';
import type { Score, Side } from './matching.types.ts';

/** A charge arrives at most this many days after, or before, the day of the line. */
export const MOST_DAYS = 12;
/** Between spendings of merchants that are not alike, or not known, hardly a day may lie. */
const MOST_DAYS_OF_STRANGERS = 5;

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
export const ALIKE = 0.5;
/** From this score on two sides are taken to be one spending without a look, whatever their merchants are called. */
export const PROOF = 85;

/**
 * How likely two sides are the same spending, or null when they cannot be: an amount has to agree to the minor unit, in
 * the currency of the purchase or in what the bank took, both days have to be known and near, and nearer still when the
 * merchants are not alike. Example: same amount, day and merchant → 100; another amount → null.
 */
export function scorePair(left: Side, right: Side): Score | null {
  const amount = amountOf(left, right);
  const days = daysOf(left, right);
  if (!amount || days === null || isOtherCard(left, right)) return null;
  const likeness = merchantSameness(left.merchant, right.merchant);
  if (Math.abs(days) > (likeness >= ALIKE ? MOST_DAYS : MOST_DAYS_OF_STRANGERS)) return null;
  const date = dateOf(days);
  const digits = digitsOf(left, right);
  return {
    score: amount.score + date.score + Math.round(likeness * MERCHANT) - (digits?.cost ?? 0),
    reasons: [amount.reason, date.reason, merchantReason(likeness, left, right), ...(digits ? [digits.reason] : [])],
    differs: null,
  };
}

/** Days from the one to the other; null when one is not known. */
export const daysOf = (left: Side, right: Side): number | null =>
  left.date && right.date ? daysBetween(left.date, right.date) : null;

export const isOtherCard = (left: Side, right: Side): boolean =>
  Boolean(left.card && right.card && left.card !== right.card);

function amountOf(left: Side, right: Side): { score: number; reason: string } | null {
  if (left.amount === null || left.amount === 0n) return null;
  if (left.amount === right.amount && left.currency === right.currency) return { score: AMOUNT, reason: 'same amount' };
  const settled = right.settled;
  if (settled && left.amount === settled.amount && left.currency === settled.currency)
    return { score: SETTLED, reason: 'same amount as the bank took' };
  return null;
}

export function dateOf(days: number): { score: number; reason: string } {
  const far = Math.abs(days);
  const [, score] = DATE_POINTS.find(([most]) => far <= most) ?? [0, 0];
  const unit = far === 1 ? 'day' : 'days';
  return { score, reason: days === 0 ? 'same day' : `${far} ${unit} ${days > 0 ? 'later' : 'earlier'}` };
}

const ONE_DIGIT_COST = 6;
const OTHER_DIGITS_COST = 20;

/** Digits that were read from a paper may be misread: others forbid nothing, they cost. */
function digitsOf({ digits: a }: Side, { digits: b }: Side): { cost: number; reason: string } | null {
  if (!a || !b || a === b) return null;
  const wrong = [...a].filter((digit, i) => digit !== b[i]).length;
  return wrong === 1
    ? { cost: ONE_DIGIT_COST, reason: `a digit of the card differs: ${a}, ${b}` }
    : { cost: OTHER_DIGITS_COST, reason: `another card: ${a}, ${b}` };
}

export function merchantReason(likeness: number, left: Side, right: Side): string {
  if (!left.merchant || !right.merchant) return 'a merchant is not known';
  return likeness === 1 ? 'same merchant' : likeness >= ALIKE ? 'similar merchant' : 'other merchant';
}
