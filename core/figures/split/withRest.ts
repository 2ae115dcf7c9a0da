import type { Split } from '../../documents/case.schema.ts';

/**
 * A split by percents or amounts as if one more share took what they leave; null where one of them takes the rest
 * already, or none is ever left. What that share comes to is what is left to divide.
 */
export function withRest(split: Split): Split | null {
  if (split.by !== 'percent' && split.by !== 'amount') return null;
  if (split.shares.some((share) => share.value === 'rest')) return null;
  return { ...split, shares: [...split.shares, { coding: {}, value: 'rest' }] };
}
