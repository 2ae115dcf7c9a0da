import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import { notNegative } from '../core/documents/primitives.ts';
import { date, distinct, id, recordId, revision, words } from './primitives.ts';

/** How often something comes again. */
export const RECURRENCES = ['week', 'fortnight', 'month', 'quarter'] as const;
export type Recurrence = (typeof RECURRENCES)[number];

/** A claim in preparation: its header and its lines as people write them. */
const purpose = z.string().trim().min(1, 'Say what the claim is for.').max(200);
const country = z.string().regex(/^[A-Z]{2}$/, 'is not a country of two letters');
const header = {
  purpose,
  tripFrom: date.nullable(),
  tripTo: date.nullable(),
  country: country.nullable(),
  place: z.string().trim().max(120).nullable(),
  /** A number or name of one's own by which it is found again. */
  reference: z.string().trim().max(60).nullable(),
  /** Words for whoever looks at the claim. */
  note: z.string().trim().max(2000).nullable(),
  /** Words for finance alone: its approver does not see them. */
  financeNote: z.string().trim().max(2000).nullable(),
  coding: parts.coding,
};
const ends = ({ tripFrom, tripTo }: { tripFrom?: string | null | undefined; tripTo?: string | null | undefined }) =>
  !tripFrom || !tripTo || tripFrom <= tripTo;
const ENDS = { path: ['tripTo'], message: 'is before the first day' };

export const beginSchema = z
  .strictObject({
    ...header,
    claimant: parts.id.describe('Whose it is, when somebody else prepares it.'),
    entity: parts.id.describe('For which entity, when they may claim from several.'),
    currency: parts.currency.describe('In which of the currencies they may be paid there.'),
    copyOf: parts.id.describe('A claim of theirs whose lines are written again.'),
  })
  .partial()
  .required({ purpose: true })
  .refine(ends, ENDS);
/** The advances a claim is set against, in this order, each up to an amount in the claim's currency or (null) as far as it goes. */
const wantedAdvances = distinct(
  z.array(z.strictObject({ advance: parts.id, upTo: notNegative.nullable() })).max(100),
  ({ advance }) => advance,
);
export const headerSchema = z.strictObject({
  revision,
  set: z
    .strictObject({ ...header, currency: parts.currency, advances: wantedAdvances })
    .partial()
    .refine(ends, ENDS),
});
export const beginningsQuery = z.strictObject({ claimant: parts.id.optional() });
/** With what a claim of a person can be begun. */
export const beginningsAnswer = z.object({
  payable: z
    .array(z.object({ entity: id, name: z.string(), currencies: z.array(z.string()) }))
    .describe('Entities they may claim from, their own first, with the currencies they may be paid in there.'),
  plans: z
    .array(z.object({ number: id, revision: z.number(), purpose: z.string() }))
    .describe('Approved, not yet claimed.'),
  claims: z.array(z.object({ number: id, purpose: z.string() })).describe('The newest, to be copied.'),
});

/** What can be written on a line. Amount and date of a card's charge are the bank's, and its line is paid by card. */
const written = {
  date,
  amount: z.strictObject({ amount: parts.amount, currency: parts.currency }),
  category: parts.id.nullable(),
  merchant: z.string().trim().max(140).nullable(),
  description: z.string().max(300).nullable(),
  country: country.nullable(),
  paidBy: z.enum(['own', 'central']),
  /** The amount is then computed from it. */
  quantity: parts.quantity.nullable(),
  coding: parts.coding,
  tax: z.array(parts.taxEntry).max(20),
  split: parts.split.nullable(),
  nights: parts.nights.nullable(),
  attendees: parts.attendees.nullable(),
  /** Texts under the names of fields that the category asks for. */
  fields: parts.fields,
  /** The amount is then computed from it. What was driven before in the year is known here. */
  journey: parts.journey.omit({ before: true }).nullable(),
  /** The amount is then computed from it. */
  stay: parts.stay.nullable(),
  estimate: parts.id.nullable().describe('The estimate of the plan it is the actual cost of.'),
  /** Kept and shown to finance; no part of what is paid. */
  rebill: parts.rebill.nullable(),
};
const items = z.array(parts.item).max(40);
export const lineSchema = z.strictObject({
  revision,
  set: z.strictObject({ ...written, items }).partial(),
});
/** Several lines are changed at once, all or none. */
export const linesSchema = z.strictObject({
  revision,
  ids: distinct(z.array(parts.id).min(1, 'names no line').max(500)),
  set: z.strictObject(written).partial(),
  codes: parts.coding.optional().describe('Codes that are put on each; what else is on it stays.'),
});
const newLine = z
  .strictObject({ ...written, items, receipt: recordId.describe('A receipt of one’s own that is put on it.') })
  .partial()
  .required({ date: true, amount: true, category: true });
export const MOST_NEW_LINES = 2000;
export const newLinesSchema = z.strictObject({
  revision,
  lines: z.array(newLine).min(1, 'has no line').max(MOST_NEW_LINES),
});
export const orderSchema = z.strictObject({
  revision,
  order: distinct(z.array(parts.id).min(1).max(5000)).describe('Every line of the claim, in the order wanted.'),
});
/** What the claimant says to a finding as it reads now; without text their word is taken back. */
export const explainSchema = z.strictObject({
  revision,
  line: parts.id.nullable(),
  code: parts.id,
  about: z.string().min(1).max(10_000),
  text: z.string().trim().max(1000),
});
export const putReceiptSchema = z.strictObject({ revision, receipt: recordId });
const part = z.strictObject({
  amount: parts.amount,
  category: parts.id.nullable(),
  description: z.string().trim().max(300).nullable(),
});
export const divideLineSchema = z.strictObject({
  revision,
  parts: z.array(part).min(2, 'has fewer than two parts').max(40),
});
export const repeatSchema = z.strictObject({
  revision,
  every: z.enum(RECURRENCES),
  until: date.nullable().describe('The last day on which it may come again; null: for good.'),
});
export const dealRecurringSchema = z.strictObject({
  revision,
  on: date.describe('The day it is due.'),
  take: z.boolean().describe('true: a line is written; false: this time is passed over.'),
});
export const recurringAnswer = z.object({
  lines: z.array(
    z.object({
      id: recordId,
      every: z.enum(RECURRENCES),
      until: date.nullable(),
      line: newLine,
      due: z.array(date).describe('The days on which it is due and that were not dealt with, the first first.'),
    }),
  ),
});
export const submitSchema = z.strictObject({
  revision,
  accepted: z
    .string()
    .max(250)
    .optional()
    .describe('The version of the statement that the policy was followed, where one is asked for.'),
});
export const answerSchema = z.strictObject({ revision, text: words });
export const begunAnswer = z.object({ number: id });

export type Beginnings = z.infer<typeof beginningsAnswer>;
export type BeginDraft = z.infer<typeof beginSchema>;
export type DivideLine = Omit<z.infer<typeof divideLineSchema>, 'revision'>;
export type Repeat = Omit<z.infer<typeof repeatSchema>, 'revision'>;
export type DealRecurring = Omit<z.infer<typeof dealRecurringSchema>, 'revision'>;
export type RecurringLines = z.infer<typeof recurringAnswer>;
export type HeaderEdit = z.infer<typeof headerSchema>;
export type LinesEdit = Omit<z.infer<typeof linesSchema>, 'revision'>;
export type Explain = Omit<z.infer<typeof explainSchema>, 'revision'>;
export type LineEdit = z.infer<typeof lineSchema>;
export type NewLine = z.infer<typeof newLine>;
