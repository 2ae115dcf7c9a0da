import { canonical } from '../../core/numbers/canonical.ts';

/**
 * What a record, or a part of it by its name, says of the fields that are set, as it can be compared; null where the part is not
 * there. Of what is set itself: what it says once that is done.
 */
export const valuesIn = (part: object | undefined, set: object, name = ''): string | null =>
  part
    ? canonical([name, ...Object.keys(set).map((field) => [field, (part as Record<string, never>)[field] ?? null])])
    : null;

/** What was typed, as far as it is a word or an amount, so that it can be read where it could not be saved. */
export function sayTyped(set: object): string {
  const { amount, ...words } = set as { amount?: string | { amount: string; currency: string } };
  const sum = typeof amount === 'object' ? [`${amount.amount} ${amount.currency}`] : amount ? [amount] : [];
  const typed = [...sum, ...Object.values(words).filter((value) => typeof value === 'string' && value !== '')];
  return typed.length === 0 ? '' : ` (${typed.join(', ')})`;
}
