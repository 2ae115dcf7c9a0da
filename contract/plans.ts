import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import { estimateSchema, PER, tripSchema } from '../core/documents/plan.schema.ts';
import type { Explanation } from '../core/explain/explain.types.ts';
import { planLifecycle, PLAN_STATES, type PlanAct } from '../core/workflow/lifecycles/planned.ts';
import {
  attachment,
  date,
  distinct,
  historyFields,
  id,
  moment,
  recordId,
  revision,
  stored,
  words,
} from './primitives.ts';

/** Plans: what is asked of them and what is answered. Amounts are decimal strings of the currency beside them. */
const purpose = z.string().trim().min(1, 'Say what the trip is for.').max(200);
const place = z.string().trim().max(120).nullable();
const { country } = tripSchema.shape;
const header = {
  purpose,
  country: country.unwrap(),
  place,
  from: date.nullable(),
  to: date.nullable(),
  privateDays: distinct(z.array(date).max(400)),
  coding: parts.coding,
};
const ends = ({ from, to }: { from?: string | null | undefined; to?: string | null | undefined }) =>
  !from || !to || from <= to;
const ENDS = { path: ['to'], message: 'is before the first day' };

export const beginPlanSchema = z
  .strictObject({
    ...header,
    kind: parts.id,
    claimant: parts.id.describe('Whose it is, when somebody else prepares it.'),
  })
  .partial()
  .required({ purpose: true, kind: true })
  .refine(ends, ENDS);
export const planHeaderSchema = z.strictObject({ revision, set: z.strictObject(header).partial().refine(ends, ENDS) });

const price = z.strictObject({ amount: parts.amount, currency: parts.currency }).nullable();
const written = {
  category: parts.id,
  description: z.string().trim().max(300).nullable(),
  per: z.enum(PER),
  count: estimateSchema.shape.count.unwrap().unwrap().nullable().describe('null: as many as the trip has.'),
  price: price.describe('null: what the limits of the country allow.'),
  coding: parts.coding,
};
export const MOST_ESTIMATES = 200;
export const addEstimatesSchema = z.strictObject({
  revision,
  estimates: z
    .array(z.strictObject(written).partial().required({ category: true, per: true }))
    .min(1, 'has no estimate')
    .max(MOST_ESTIMATES),
});
export const estimatesSchema = z.strictObject({
  revision,
  ids: distinct(z.array(parts.id).min(1, 'names no estimate').max(MOST_ESTIMATES)),
  set: z.strictObject(written).partial(),
  codes: parts.coding.optional().describe('Codes that are put on each; what else is on it stays.'),
  rehearse: z.boolean().optional().describe('true: only say what it would come to.'),
});
const option = z.strictObject({
  says: z.string().trim().min(1, 'Say what is offered.').max(140),
  amount: parts.amount,
  currency: parts.currency,
});
const booking = {
  estimate: parts.id.nullable().describe('The estimate it is for.'),
  what: z.string().trim().min(1, 'Say what is booked.').max(140),
  date,
  options: z.array(option).min(1, 'has no option').max(20),
  chosen: z.number().int().min(0).max(19).nullable().describe('Which of the options, from 0; null: none yet.'),
  /** Nobody spends money of their own on what is booked for them. */
  paidBy: z.enum(['card', 'central']),
  confirmation: z.string().trim().max(140).nullable(),
};
export const addBookingSchema = z.strictObject({ revision, booking: z.strictObject(booking) });
export const editBookingSchema = z.strictObject({ revision, set: z.strictObject(booking).partial() });
export const approvePlanSchema = z.strictObject({ revision, comment: z.string().trim().max(2000).optional() });
export const declinePlanSchema = z.strictObject({ revision, reason: words });
export const seenPlanSchema = z.strictObject({ revision });

const state = z.enum(PLAN_STATES);
const figure = z.string().nullable();
const money = z.object({ amount: z.string(), currency: z.string() });
const tide = z.array(z.object({ state: z.string(), from: moment }));

const row = z.object({
  number: id,
  revision: z.number(),
  state,
  purpose: z.string(),
  claimant: z.string(),
  country: z.string().nullable(),
  place: z.string().nullable(),
  from: date.nullable(),
  to: date.nullable(),
  currency: z.string(),
  total: figure,
  tide,
});
export const plansAnswer = z.object({
  plans: z.array(row),
  toBook: z
    .array(row)
    .describe('Approved plans of others, of which no claim came yet, for whoever prepares for others.'),
});
export const templatesAnswer = z.object({
  templates: z.array(z.object({ id, name: z.string(), categories: z.array(z.string()) })),
});

const estimate = z.object({
  id,
  category: z.string(),
  description: z.string().nullable(),
  per: z.enum(PER),
  coding: parts.coding,
  count: z.number().nullable(),
  countTyped: z.boolean(),
  price: money.nullable(),
  priceTyped: z.boolean(),
  amount: figure.describe('In the currency of its price.'),
  inPlanCurrency: figure,
  suggested: money.extend({ source: z.string() }).nullable().describe('What the limits of the country allow.'),
  explained: z.array(stored<Explanation>('explanation')),
});
const problem = z.object({
  estimate: id.nullable(),
  field: z.string().nullable().describe('Where it is put right; null where it is about no single field.'),
  severity: z.enum(['stop', 'ask', 'note']),
  says: z.string(),
});
const shownBooking = z.object({ ...booking, id: recordId, by: z.string(), attachments: z.array(attachment) });
export const planAnswer = z.object({
  plan: row.extend({
    entity: id,
    entityName: z.string(),
    preparer: z.string(),
    deciders: z.array(z.string()).describe('Who decides about it now.'),
    kind: id,
    kindName: z.string(),
    privateDays: z.array(date),
    coding: parts.coding,
    submittedOn: date.nullable(),
    approvedOn: date.nullable(),
    ratesOf: date.nullable().describe('The day whose rates were taken.'),
    claim: id.nullable().describe('The claim it became.'),
  }),
  estimates: z.array(estimate),
  problems: z.array(problem),
  attachments: z.array(attachment),
  bookings: z.array(shownBooking),
  history: z.array(historyFields),
  may: z.array(z.enum(Object.keys(planLifecycle.acts) as [PlanAct, ...PlanAct[]])),
});
export const planClaimAnswer = z.object({ number: id });

export type NewBookingSaid = z.infer<typeof addBookingSchema>['booking'];
export type BookingSet = z.infer<typeof editBookingSchema>['set'];
export type Booking = z.infer<typeof shownBooking>;
export type BeginPlan = z.infer<typeof beginPlanSchema>;
export type PlanHeaderSet = z.infer<typeof planHeaderSchema>['set'];
export type NewEstimate = z.infer<typeof addEstimatesSchema>['estimates'][number];
export type EstimatesEdit = Pick<z.infer<typeof estimatesSchema>, 'ids' | 'set' | 'codes'>;
export type EstimateSet = z.infer<typeof estimatesSchema>['set'];
export type PlanAnswer = z.infer<typeof planAnswer>;
export type PlanInput = z.input<typeof planAnswer>;
export type PlanListRow = z.infer<typeof row>;
