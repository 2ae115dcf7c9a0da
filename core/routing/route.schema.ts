import { z } from 'zod';
import { currency, id, notNegative } from '../documents/primitives.ts';
import { DECIDERS } from '../workflow/lifecycle.types.ts';

/** What needs somebody's decision before money is spent, paid out or paid back. */
export const ROUTED = ['claim', 'plan', 'advance'] as const;
export type Routed = (typeof ROUTED)[number];

/** The chain of usual approvers is followed at most so far. */
const MOST_STEPS = 20;

const who = z.discriminatedUnion('is', [
  /** The claimant's usual approver; 2 steps: the usual approver of that one, and so on, at most to the top. */
  z.strictObject({ is: z.literal('approver'), steps: z.number().int().min(1).max(MOST_STEPS) }),
  /** The owner of each code charged, of these dimensions; each for what is charged to theirs. */
  z.strictObject({ is: z.literal('owner'), dimensions: z.array(id).min(1).max(30) }),
  /** The sponsor of a contractor. */
  z.strictObject({ is: z.literal('sponsor') }),
  /** Anybody who holds a role for the record's entity. */
  z.strictObject({ is: z.literal('role'), role: z.enum(DECIDERS) }),
  z.strictObject({ is: z.literal('person'), person: id }),
]);

/**
 * One level of the routes, as data of the book: which records it concerns, where in the order it stands (levels at one place
 * decide side by side), and who decides. `above` in a currency of its own: only what is more. Dates stand beside it.
 */
export const routeLevelSchema = z.strictObject({
  name: z.string().trim().min(1, 'Give it a name.').max(100),
  of: z.array(z.enum(ROUTED)).min(1),
  place: z.number().int().min(1).max(99),
  entities: z.array(id).min(1).max(200).nullish(),
  categories: z.array(id).min(1).max(500).nullish(),
  above: z.strictObject({ amount: notNegative, currency }).nullish(),
  who,
});
export type RouteLevel = z.infer<typeof routeLevelSchema>;
