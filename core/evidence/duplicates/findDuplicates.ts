import { daysBetween } from '../../numbers/isoDate.ts';
import { merchantLikeness, merchantWords } from '../merchants/merchantWords.ts';

/** A line with what it can be a duplicate by. `amount` is in minor units of `currency`. */
export interface DuplicateLine {
  id: string;
  amount: bigint;
  currency: string;
  /** ISO 8601. */
  date: string;
  merchant: string | null;
  /** Content hash of the receipt's file. */
  receipt: string | null;
  /** 64-bit likeness hash of the receipt's picture, 16 hexadecimal digits. */
  likeness: string | null;
  /** What the receipt shows, such as "84.50 EUR"; null where that is not known. */
  shows: string | null;
  charge: string | null;
}
export type DuplicateReason =
  'same receipt' | 'near-identical receipt' | 'same charge' | 'same amount, date and merchant';

/** Two lines that may be the same spending claimed twice. */
export interface Duplicate {
  first: string;
  second: string;
  reason: DuplicateReason;
}

/** Days between two claims of the same amount at the same merchant that still look like one purchase. */
export const NEAR_DAYS = 3;
/** Bits in which near-identical pictures differ at most. With four bands of 16 bits, one band is then always equal. */
export const NEAR_BITS = 3;

/**
 * Why two lines may be the same spending, or null. Two different charges of the bank are two purchases. Example: the
 * same receipt on both → "same receipt"; other amounts and papers → null.
 */
export function reasonOf(a: DuplicateLine, b: DuplicateLine): DuplicateReason | null {
  if (a.receipt !== null && a.receipt === b.receipt) return 'same receipt';
  if (a.charge !== null && a.charge === b.charge) return 'same charge';
  if (looksAlike(a, b)) return 'near-identical receipt';
  if (a.charge !== null && b.charge !== null) return null;
  const samePurchase =
    a.amount === b.amount
    && a.currency === b.currency
    && a.amount !== 0n
    && Math.abs(daysBetween(a.date, b.date)) <= NEAR_DAYS;
  return samePurchase && merchantLikeness(a.merchant, b.merchant) === 1 ? 'same amount, date and merchant' : null;
}

/**
 * Whether two pictures are near-identical: slips of one shop look much alike, so those that are known to show different
 * amounts are not. Example: 2 bits apart → true; 2 apart, but known to show 10.00 and 12.00 → false.
 */
export function looksAlike(
  a: Pick<DuplicateLine, 'likeness' | 'shows'>,
  b: Pick<DuplicateLine, 'likeness' | 'shows'>,
): boolean {
  if (a.likeness === null || b.likeness === null || bitsApart(a.likeness, b.likeness) > NEAR_BITS) return false;
  return a.shows === null || b.shows === null || a.shows === b.shows;
}

/**
 * Finds lines that may be one spending claimed twice, in time near-linear in their number: lines are put into buckets
 * by what would have to be equal, and only neighbours in a bucket are compared. Of a chain of duplicates every
 * neighbouring pair is given, so the whole chain can be followed. Example: lines a and b with one receipt, c alone →
 * one finding, a with b.
 */
export function findDuplicates(lines: readonly DuplicateLine[]): Duplicate[] {
  const found = new Map<string, Duplicate>();
  const add = (a: DuplicateLine, b: DuplicateLine, reason: DuplicateReason) => {
    const [first, second] = a.id < b.id ? [a.id, b.id] : [b.id, a.id];
    const key = `${first}\n${second}`;
    if (first !== second && !found.has(key)) found.set(key, { first, second, reason });
  };
  for (const bucket of buckets(lines, (l) => (l.receipt ? [l.receipt] : [])))
    chain(bucket, (a, b) => add(a, b, 'same receipt'));
  for (const bucket of buckets(lines, (l) => (l.charge ? [l.charge] : [])))
    chain(bucket, (a, b) => add(a, b, 'same charge'));
  for (const bucket of buckets(lines, bandsOf))
    window(bucket.sort(byLikeness), (a, b) => {
      if (a.receipt !== b.receipt && looksAlike(a, b)) add(a, b, 'near-identical receipt');
    });
  for (const bucket of buckets(lines, purchaseKeys))
    chain(bucket.sort(byDate), (a, b) => {
      if (reasonOf(a, b) === 'same amount, date and merchant') add(a, b, 'same amount, date and merchant');
    });
  return [...found.values()];
}

const byLikeness = (a: DuplicateLine, b: DuplicateLine): number =>
  a.likeness! < b.likeness! ? -1 : a.likeness! > b.likeness! ? 1 : 0;
const byDate = (a: DuplicateLine, b: DuplicateLine): number => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0);

/** One key for each word of the merchant, beside amount and currency. Lines without a merchant are not compared so. */
const purchaseKeys = (line: DuplicateLine): string[] =>
  line.merchant === null || line.amount === 0n
    ? []
    : merchantWords(line.merchant)
        .slice(0, 3)
        .map((word) => `${line.currency} ${line.amount} ${word}`);

/** The four quarters of a likeness hash: hashes that differ in at most three bits share at least one. */
const bandsOf = ({ likeness }: DuplicateLine): string[] =>
  likeness === null ? [] : [0, 4, 8, 12].map((at) => `${at} ${likeness.slice(at, at + 4)}`);

function buckets(lines: readonly DuplicateLine[], keysOf: (line: DuplicateLine) => string[]): DuplicateLine[][] {
  const map = new Map<string, DuplicateLine[]>();
  for (const line of lines)
    for (const key of keysOf(line)) {
      const bucket = map.get(key);
      if (bucket) bucket.push(line);
      else map.set(key, [line]);
    }
  return [...map.values()].filter((bucket) => bucket.length > 1);
}

function chain(bucket: readonly DuplicateLine[], compare: (a: DuplicateLine, b: DuplicateLine) => void): void {
  for (let i = 1; i < bucket.length; i += 1) compare(bucket[i - 1]!, bucket[i]!);
}

/** How many followers each picture of a band is compared with: bands are short, but one may hold all blank pages. */
const WINDOW = 24;

function window(bucket: readonly DuplicateLine[], compare: (a: DuplicateLine, b: DuplicateLine) => void): void {
  for (let i = 0; i < bucket.length; i += 1)
    for (let j = i + 1; j < Math.min(bucket.length, i + 1 + WINDOW); j += 1) compare(bucket[i]!, bucket[j]!);
}

/**
 * In how many of their 64 bits two likeness hashes differ. ("00000000000000ff", "00000000000000fe") → 1; the same → 0.
 */
export function bitsApart(a: string, b: string): number {
  let count = 0;
  for (let at = 0; at < 16; at += 8) {
    let bits = parseInt(a.slice(at, at + 8), 16) ^ parseInt(b.slice(at, at + 8), 16);
    for (; bits !== 0; bits &= bits - 1) count += 1;
  }
  return count;
}
