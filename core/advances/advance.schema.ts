import { z } from 'zod';
import { currency, id, notNegative } from '../documents/primitives.ts';

/** What an advance is for: a trip, things to be bought, or cash that stays with somebody and is topped up. */
export const ADVANCE_KINDS = ['trip', 'purchases', 'float'] as const;
export type AdvanceKind = (typeof ADVANCE_KINDS)[number];

/**
 * A rule about advances, as data of the book: how much one person may have open in all, or that nobody gets another one while
 * one is overdue. Who wants an exception says why. Dates stand beside it.
 */
export const advanceRuleSchema = z.strictObject({
  entities: z.array(id).min(1).max(200).nullish(),
  is: z.discriminatedUnion('rule', [
    z.strictObject({ rule: z.literal('most open'), amount: notNegative, currency }),
    z.strictObject({ rule: z.literal('none while overdue') }),
  ]),
});
export type AdvanceRule = z.infer<typeof advanceRuleSchema>;
