import { daysBetween } from '../../numbers/isoDate.ts';
import { merchantSameness } from '../merchants/merchantWords.ts';
import type { Pair, Side } from './matching.types.ts';
import { ALIKE, isOtherCard, MOST_DAYS } from './scorePair.ts';

const MOST_TOGETHER = 5;
const MOST_CANDIDATES = 14;
const TOGETHER_SCORE = 80;

/**
 * Sides that are the sum of two to five of the other ones, of the same merchant and about that day: a hotel bill typed as
 * nights and breakfasts, or a purchase the bank took in two parts. `word` is what the parts are. Strangers whose amounts
 * come to the sum by chance are none.
 */
export function sumsOf(wholes: readonly Side[], parts: readonly Side[], word: string) {
  const used = new Set<string>();
  return wholes.flatMap((whole) => {
    const near = parts.filter((part) => !used.has(part.id) && mayBePart(part, whole)).slice(0, MOST_CANDIDATES);
    const chosen = subsetOf(near, whole.amount);
    if (!chosen) return [];
    chosen.forEach((part) => used.add(part.id));
    const sameDay = chosen.every((part) => part.date === whole.date);
    const pair: Omit<Pair, 'left' | 'right'> = {
      score: TOGETHER_SCORE + (sameDay ? 10 : 0),
      reasons: [`${chosen.length} ${word} add up to it`, sameDay ? 'same day' : 'near days', 'same merchant'],
      differs: null,
    };
    return [{ whole: whole.id, parts: chosen.map((part) => part.id), pair }];
  });
}

function mayBePart(part: Side, whole: Side): boolean {
  if (part.amount === null || whole.amount === null || part.currency !== whole.currency || part.amount === 0n)
    return false;
  if (part.amount > 0n !== whole.amount > 0n || isOtherCard(part, whole)) return false;
  if (merchantSameness(part.merchant, whole.merchant) < ALIKE) return false;
  return part.date !== null && whole.date !== null && Math.abs(daysBetween(part.date, whole.date)) <= MOST_DAYS;
}

/** Two to five of the sides whose amounts are exactly the sum: the fewest, the earliest first; null when there are none. */
function subsetOf(sides: readonly Side[], sum: bigint | null): Side[] | null {
  if (sum === null) return null;
  for (let count = 2; count <= Math.min(MOST_TOGETHER, sides.length); count += 1) {
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
