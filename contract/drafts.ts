import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import { date, id, revision, words } from './primitives.ts';

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
  .strictObject({ ...header, claimant: parts.id.describe('Whose it is, when somebody else prepares it.') })
  .partial()
  .required({ purpose: true })
  .refine(ends, ENDS);
export const headerSchema = z.strictObject({ revision, set: z.strictObject(header).partial().refine(ends, ENDS) });

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
  ids: z.array(parts.id).min(1, 'names no line').max(500),
  set: z.strictObject(written).partial(),
  codes: parts.coding.optional().describe('Codes that are put on each; what else is on it stays.'),
});
const newLine = z
  .strictObject({ ...written, items })
  .partial()
  .required({ date: true, amount: true, category: true });
export const MOST_NEW_LINES = 2000;
export const newLinesSchema = z.strictObject({
  revision,
  lines: z.array(newLine).min(1, 'has no line').max(MOST_NEW_LINES),
});
export const orderSchema = z.strictObject({
  revision,
  order: z.array(parts.id).min(1).max(5000).describe('Every line of the claim, in the order wanted.'),
});
/** What the claimant says to a finding as it reads now; without text their word is taken back. */
export const explainSchema = z.strictObject({
  revision,
  line: parts.id.nullable(),
  code: parts.id,
  about: z.string().min(1).max(10_000),
  text: z.string().trim().max(1000),
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

export type BeginDraft = z.infer<typeof beginSchema>;
export type HeaderEdit = z.infer<typeof headerSchema>;
export type LinesEdit = Omit<z.infer<typeof linesSchema>, 'revision'>;
export type Explain = Omit<z.infer<typeof explainSchema>, 'revision'>;
export type LineEdit = z.infer<typeof lineSchema>;
export type NewLine = z.infer<typeof newLine>;
