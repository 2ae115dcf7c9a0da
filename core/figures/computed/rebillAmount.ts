import type { Line } from '../../documents/case.schema.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { fraction, ONE, plus, times } from '../../numbers/fraction.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';
import type { Figure } from '../figures.types.ts';

/**
 * What is charged on for a line, in minor units of the claim's currency: its amount, tax included, with the mark-up in
 * percent, rounded once, half away from zero. It is no part of what is paid. Example: 12.35 with 10 % → 13.59; -12.35 →
 * -13.59; an unknown amount → null.
 */
export function rebillAmount(claimAmount: Figure, { markup }: NonNullable<Line['rebill']>): Figure {
  if (claimAmount === null) return null;
  const factor = plus(ONE, times(decimalToFraction(markup ?? '0'), fraction(1n, 100n)));
  return roundHalfAway(claimAmount * factor.n, factor.d);
}
