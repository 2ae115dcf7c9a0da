import { fromMinor, magnitude, signOf } from '../../numbers/amount.ts';
import { merchantSameness, merchantWords } from '../merchants/merchantWords.ts';
import type { Edge } from './assign.ts';
import type { Score, Side } from './matching.types.ts';
import { ALIKE, dateOf, daysOf, isOtherCard, merchantReason } from './scorePair.ts';

/** Pairs that differ never score as much as pairs that do not. */
const MOST_SCORE = 80;
const MOST_DAYS = 5;
/** Something that is booked is charged, or taken up, weeks later. */
const MOST_DAYS_BOOKED = 30;
const BOOKED = 45;
const CENTS = 42;
const TIP = 34;
const RATE = 36;
const MERCHANT = 14;
/** At most so many minor units, and at most so much of the amount, are a slip of the pen or a rounding. */
const MOST_CENTS = 5n;
const CENTS_PART = 100n;
/** A tip is at most a quarter of the bill. */
const TIP_PART = 4n;
/** The rate of a card differs from the published one by its fee, at most by one part in twenty-five. */
const RATE_PART = 25n;

/**
 * Pairs a person would see though something differs, which is named: cents, a tip that was added later, a bank that tells
 * only its own currency, a booking weeks ahead. The merchants have to be alike and the days near.
 * Example: 38.00 and 42.00 at one bar on one day → "4.00 EUR more, as a tip would be".
 */
export function scoreNear(left: Side, right: Side): Score | null {
  const days = daysOf(left, right);
  const likeness = merchantSameness(left.merchant, right.merchant);
  if (days === null || likeness < ALIKE || isOtherCard(left, right) || Math.abs(days) > MOST_DAYS_BOOKED) return null;
  const difference = differenceOf(left, right, Math.abs(days));
  if (!difference) return null;
  const date = dateOf(days);
  return {
    score: Math.min(MOST_SCORE, difference.score + date.score + Math.round(likeness * MERCHANT)),
    reasons: [difference.says, date.reason, merchantReason(likeness, left, right)],
    differs: difference.says,
  };
}

interface Difference {
  score: number;
  says: string;
}

function differenceOf(left: Side, right: Side, far: number): Difference | null {
  if (left.amount === null || right.amount === null || signOf(left.amount) !== signOf(right.amount)) return null;
  const same = left.currency === right.currency;
  if (same && left.amount === right.amount) return { score: BOOKED, says: `${far} days apart` };
  if (far > MOST_DAYS) return null;
  return same ? amountsApart(left.amount, right.amount, left.currency!) : otherCurrency(left, right);
}

function amountsApart(left: bigint, right: bigint, currency: string): Difference | null {
  const by = magnitude(right) - magnitude(left);
  const says = `${fromMinor(magnitude(by), currency)} ${currency} ${by > 0n ? 'more' : 'less'}`;
  if (magnitude(by) <= MOST_CENTS && magnitude(by) * CENTS_PART <= magnitude(left)) return { score: CENTS, says };
  if (by > 0n && by * TIP_PART <= magnitude(left)) return { score: TIP, says: `${says}, as a tip would be` };
  return null;
}

/** The bank tells only what it took: the amount at the published rate of the day, or at the bank's own near it, comes near it. */
function otherCurrency(left: Side, right: Side): Difference | null {
  const estimate = left.estimates?.find((e) => e.currency === right.currency);
  if (!estimate || right.settled) return null;
  const by = magnitude(magnitude(right.amount!) - magnitude(estimate.amount));
  if (by * RATE_PART > magnitude(estimate.amount)) return null;
  const percent = Number((by * 1000n) / magnitude(estimate.amount)) / 10;
  const rate = estimate.bankOn ? `the bank's own rate of ${estimate.bankOn}` : 'the rate of the day';
  const said = `${fromMinor(estimate.amount, estimate.currency)} ${estimate.currency} at ${rate}`;
  return { score: RATE, says: percent === 0 ? said : `${said}, ${percent} % apart` };
}

/** Only sides of merchants that share the beginning of a word can be near, so only those are looked at. */
export function nearEdges(lefts: readonly Side[], rights: readonly Side[], scores: Map<number, Score>): Edge[] {
  const byWord = new Map<string, number[]>();
  rights.forEach((right, j) => {
    for (const key of keysOf(right)) byWord.set(key, [...(byWord.get(key) ?? []), j]);
  });
  return lefts.flatMap((left, i) => {
    const candidates = new Set([...keysOf(left)].flatMap((key) => byWord.get(key) ?? []));
    return [...candidates].flatMap((j) => {
      const score = scoreNear(left, rights[j]!);
      if (!score) return [];
      scores.set(i * rights.length + j, score);
      return [{ row: i, column: j, worth: score.score }];
    });
  });
}

const keysOf = ({ merchant }: Side): Set<string> =>
  new Set(merchant ? merchantWords(merchant).map((word) => word.slice(0, 3)) : []);
