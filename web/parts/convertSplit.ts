import type { Split } from '../../core/documents/case.schema.ts';

/** What a split begins with. */
export const HALVES: Split = {
  by: 'percent',
  shares: [
    { coding: {}, value: '50' },
    { coding: {}, value: 'rest' },
  ],
};

/**
 * The same shares divided another way, starting from what they came to: amounts become the shares' gross amounts, the
 * last one taking the rest; percents and weights start from the values there are, or even.
 */
export function convertSplit(split: Split, by: Split['by'], grosses: readonly (string | null)[]): Split {
  if (split.by === by) return split;
  const last = split.shares.length - 1;
  const values = split.shares.map((_, i): string | null => {
    switch (by) {
      case 'equal':
        return null;
      case 'weight':
        return '1';
      case 'percent':
        return i === last ? 'rest' : String(Math.floor(100 / split.shares.length));
      case 'amount':
        return i === last ? 'rest' : (grosses[i] ?? '0');
      default:
        return by satisfies never;
    }
  });
  return { by, shares: split.shares.map((share, i) => ({ ...share, value: values[i]! })) };
}

/**
 * The split with the cut after share `index` moved to `at` (0 to 100 of the bar): only the two shares beside the cut
 * change, in whole percents. Splits by other ways become percents first.
 */
export function moveCut(split: Split, grosses: readonly number[], index: number, at: number): Split {
  const total = grosses.reduce((a, g) => a + g, 0) || 1;
  const percents = toWhole(grosses.map((g) => (100 * g) / total));
  const before = percents.slice(0, index).reduce((a, p) => a + p, 0);
  const both = percents[index]! + percents[index + 1]!;
  const left = Math.max(0, Math.min(both, Math.round(at - before)));
  const moved = percents.map((p, i) => (i === index ? left : i === index + 1 ? both - left : p));
  return {
    by: 'percent',
    shares: split.shares.map((share, i) => ({ ...share, value: i === moved.length - 1 ? 'rest' : String(moved[i]) })),
  };
}

function toWhole(percents: number[]): number[] {
  const whole = percents.map(Math.floor);
  whole[whole.length - 1]! += 100 - whole.reduce((a, p) => a + p, 0);
  return whole;
}
