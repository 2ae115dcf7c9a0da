import { z } from 'zod';
import { ROUTED } from '../core/routing/route.schema.ts';
import { amount, currency, date, distinct, id, moment } from './primitives.ts';

/** Decisions: what waits for somebody, and the route a record takes. People are told by name. */
const figure = amount.nullable().describe('null: it cannot be computed.');
const about = z.object({ dimension: id, code: id, amount: figure });
const budget = z.object({
  dimension: id,
  code: id,
  left: figure.describe('In the ledger’s currency, as it was when this was last assessed.'),
  mine: z.boolean(),
});
const waiting = z.object({
  kind: z.enum(ROUTED),
  asks: z.enum(['record', 'code']).describe('About the record as a whole, or about codes that finance gave it.'),
  number: id,
  revision: z.number(),
  who: z.string(),
  purpose: z.string(),
  from: date.nullable(),
  to: date.nullable(),
  amount: figure.describe('What it costs in all.'),
  currency,
  toPay: figure,
  ledgerCurrency: currency,
  since: moment,
  levels: z.array(z.string()),
  insteadOf: z.array(z.string()).describe('For whom one decides as their substitute.'),
  about: z.array(about),
  budgets: z.array(budget),
  plan: id.nullable(),
  ties: z.record(z.string(), z.string()),
  stops: z.number(),
  asksOpen: z.number().describe('How many findings ask for a word.'),
  words: z.array(z.object({ line: id.nullable(), says: z.string(), text: z.string() })),
  usual: z.boolean().describe('Nothing is off, missing or asked about.'),
});
export const approvalsAnswer = z.object({
  waiting: z.array(waiting),
  decided: z
    .array(
      z.object({
        kind: z.enum(ROUTED),
        number: id,
        revision: z.number(),
        who: z.string(),
        purpose: z.string(),
        amount: figure,
        currency,
        at: moment,
      }),
    )
    .describe('What one decided last and may still take back.'),
});

const detour = z.object({
  person: z.string(),
  why: z.enum(['own', 'prepared', 'left', 'away', 'no role', 'unknown']),
  to: z.string().nullable(),
  as: z.enum(['substitute', 'above']).nullable(),
});
const need = z.object({
  people: z.array(z.string()).describe('Any one of them decides.'),
  about: z.array(about),
  detours: z.array(detour),
  decidedBy: z.string().nullable(),
  decidedAt: moment.nullable(),
  waiting: z.boolean(),
});
const skip = z.discriminatedUnion('why', [
  z.object({ why: z.literal('below'), total: amount, currency, limit: amount }),
  z.object({ why: z.literal('category') }),
  z.object({ why: z.literal('not charged') }),
  z.object({ why: z.literal('not a contractor') }),
  z.object({ why: z.literal('no owner'), dimension: id, code: id }),
  z.object({
    why: z.literal('decides already'),
    person: z.string(),
    place: z.number(),
    about: z.array(about),
    detours: z.array(detour),
  }),
  z.object({ why: z.literal('nobody'), about: z.array(about), detours: z.array(detour) }),
]);
export const routeAnswer = z.object({
  submitted: z.boolean().describe('Whether this is the way it went, or the way it would go now.'),
  ledgerCurrency: currency,
  levels: z.array(z.object({ name: z.string(), place: z.number(), needs: z.array(need), skipped: z.array(skip) })),
  codes: z.array(need).describe('Codes that finance gave it after it was approved, and what their owners say.'),
  unfilled: z.object({ level: z.string(), ask: z.array(z.string()) }).nullable(),
});

/** A made-up record whose route is wanted. */
export const tryRouteSchema = z.strictObject({
  kind: z.enum(ROUTED),
  on: date,
  entity: id,
  claimant: id,
  preparer: id.nullish(),
  total: amount,
  currency,
  charged: distinct(
    z.array(z.strictObject({ dimension: id, code: id, amount: amount.describe('In the ledger’s currency.') })).max(30),
    ({ dimension, code }) => `${dimension} ${code}`,
  ),
  categories: distinct(z.array(id).max(50)),
});
export const routedParams = z.strictObject({ kind: z.enum(ROUTED), number: id });

export type TryRoute = z.infer<typeof tryRouteSchema>;
export type RouteAnswer = z.infer<typeof routeAnswer>;
export type RouteInput = z.input<typeof routeAnswer>;
export type RouteNeed = z.infer<typeof need>;
export type RouteSkip = z.infer<typeof skip>;
export type Waiting = z.infer<typeof waiting>;
export type ApprovalsAnswer = z.infer<typeof approvalsAnswer>;
