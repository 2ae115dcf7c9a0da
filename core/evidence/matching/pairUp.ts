import { daysBetween } from '../../numbers/isoDate.ts';
import { merchantLikeness } from '../merchants/merchantWords.ts';
import { assign, type Edge } from './assign.ts';
import type { Pair, Side } from './matching.types.ts';
import { MOST_DAYS, scorePair, type Score } from './scorePair.ts';

const MOST_LINES_TOGETHER = 5;
const MOST_CANDIDATES = 14;
const TOGETHER_SCORE = 60;

/**
 * Pairs left sides (lines) with right sides (charges, or receipts) so that the pairs together score most, no side
 * twice. A right side left over is then sought as the sum of several lines left over. Best pairs first. Example: two
 * lines of 20.00, charges of 20.00 and 35.00 → one pair; the line nearer in date has it.
 */
export function pairUp(lefts: readonly Side[], rights: readonly Side[]): Pair[] {
  const scores = new Map<number, Score>();
  const edges = edgesOf(lefts, rights, scores);
  const chosen = assign(lefts.length, rights.length, edges);
  const pairs: Pair[] = [];
  const freeLefts: Side[] = [];
  const taken = new Set<number>();
  lefts.forEach((left, i) => {
    const column = chosen[i]!;
    if (column < 0) return freeLefts.push(left);
    taken.add(column);
    return pairs.push({ left: [left.id], right: rights[column]!.id, ...scores.get(i * rights.length + column)! });
  });
  const freeRights = rights.filter((_, j) => !taken.has(j));
  return [...pairs, ...togetherPairs(freeLefts, freeRights)].sort((a, b) => b.score - a.score);
}

/** Only sides that agree in an amount can be a pair, so only those are looked at. */
function edgesOf(lefts: readonly Side[], rights: readonly Side[], scores: Map<number, Score>): Edge[] {
  const byAmount = new Map<string, number[]>();
  const note = (amount: bigint | null, currency: string | null, j: number) => {
    if (amount === null || currency === null) return;
    const key = `${currency} ${amount}`;
    const list = byAmount.get(key);
    if (!list) byAmount.set(key, [j]);
    else if (list.at(-1) !== j) list.push(j);
  };
  rights.forEach((right, j) => {
    note(right.amount, right.currency, j);
    if (right.settled) note(right.settled.amount, right.settled.currency, j);
  });
  return lefts.flatMap((left, i) =>
    (byAmount.get(`${left.currency} ${left.amount}`) ?? []).flatMap((j) => {
      const score = scorePair(left, rights[j]!);
      if (!score) return [];
      scores.set(i * rights.length + j, score);
      return [{ row: i, column: j, worth: score.score }];
    }),
  );
}

/** Right sides that are the sum of several lines of about that day: a hotel bill typed as nights and breakfasts. */
function togetherPairs(lefts: readonly Side[], rights: readonly Side[]): Pair[] {
  const used = new Set<string>();
  return rights.flatMap((right) => {
    const near = lefts.filter((left) => !used.has(left.id) && mayBePart(left, right)).slice(0, MOST_CANDIDATES);
    const parts = subsetOf(near, right.amount);
    if (!parts) return [];
    parts.forEach((p) => used.add(p.id));
    const alike = parts.every((p) => merchantLikeness(p.merchant, right.merchant) >= 0.5);
    const sameDay = parts.every((p) => p.date === right.date);
    const score = TOGETHER_SCORE + (alike ? 20 : 0) + (sameDay ? 10 : 0);
    const reasons = [
      `${parts.length} lines add up to it`,
      sameDay ? 'same day' : 'near days',
      alike ? 'same merchant' : 'other merchant',
    ];
    return [{ left: parts.map((p) => p.id), right: right.id, score, reasons }];
  });
}

function mayBePart(left: Side, right: Side): boolean {
  if (left.amount === null || right.amount === null || left.currency !== right.currency || left.amount === 0n)
    return false;
  if (left.amount > 0n !== right.amount > 0n) return false;
  if (left.card && right.card && left.card !== right.card) return false;
  return left.date !== null && right.date !== null && Math.abs(daysBetween(left.date, right.date)) <= MOST_DAYS;
}

/** Two to five of the sides whose amounts are exactly the sum: the fewest, the earliest first; null when there are none. */
function subsetOf(sides: readonly Side[], sum: bigint | null): Side[] | null {
  if (sum === null) return null;
  for (let count = 2; count <= Math.min(MOST_LINES_TOGETHER, sides.length); count += 1) {
    const found = choose(sides, sum, count, 0);
    if (found) return found;
  }
  return null;
}

function choose(sides: readonly Side[], sum: bigint, count: number, from: number): Side[] | null {
  if (count === 0) return sum === 0n ? [] : null;
  for (let i = from; i <= sides.length - count; i += 1) {
    const rest = choose(sides, sum - sides[i]!.amount!, count - 1, i + 1);
    if (rest) return [sides[i]!, ...rest];
  }
  return null;
}
