import type { Split } from '../../core/documents/case.schema.ts';
import { decimalToFraction, fractionToDecimal } from '../../core/numbers/decimal.ts';
import { fraction, minus } from '../../core/numbers/fraction.ts';

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
 * The split with share `index` taking the rest; the one that took it so far keeps what it came to. `grosses` are what the
 * shares came to, in the line's currency.
 */
export function restTo(split: Split, index: number, grosses: readonly (string | null)[]): Split {
  const others = split.shares.filter((s) => s.value !== 'rest').map((s) => s.value ?? '0');
  const kept = (i: number) => (split.by === 'amount' ? (grosses[i] ?? '0') : percentLeft(others));
  const valueOf = (share: Split['shares'][number], i: number) =>
    i === index ? 'rest' : share.value === 'rest' ? kept(i) : share.value;
  return { ...split, shares: split.shares.map((share, i) => ({ ...share, value: valueOf(share, i) })) };
}

/** What percents leave of 100, exactly. */
function percentLeft(percents: readonly string[]): string {
  const left = percents.reduce((rest, p) => minus(rest, decimalToFraction(p)), fraction(100n, 1n));
  return left.n < 0n ? '0' : fractionToDecimal(left);
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
