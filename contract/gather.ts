import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import type { Pair } from '../core/evidence/matching/matching.types.ts';
import type { Reading } from '../core/evidence/reading/reading.types.ts';
import type { MonthProof } from '../core/evidence/statements/reconcileMonth.ts';
import { RECEIPT_STATES } from '../core/workflow/lifecycles/gathering.ts';
import { percent } from '../core/documents/primitives.ts';
import { answeredId, date, distinct, id, moment, page, recordId, revision, stored } from './primitives.ts';

/** From what was gathered to the lines of drafts: receipts, charges, cards by month, pairs. */
const label = z.string().trim().min(1).max(140);
const figure = z.string().nullable();

const taxShown = z.strictObject({
  rate: parts.decimal
    .refine((rate) => percent.safeParse(rate).success, 'Enter a rate from 0 to 100.')
    .nullable()
    .describe('In percent; null when the receipt does not tell it.'),
  base: parts.amount.nullish(),
  tax: parts.amount.nullish(),
});
export const confirmSchema = z.strictObject({
  revision,
  amount: parts.amount,
  currency: parts.currency,
  date: date,
  merchant: label,
  taxNumber: z.string().trim().max(40).nullish(),
  cardDigits: z
    .string()
    .regex(/^\d{4}$/, 'Enter the last four digits of the card.')
    .nullish(),
  taxes: z.array(taxShown).max(10).default([]),
});
const turns = z.number().int().min(0).max(3);
export const turnSchema = z.strictObject({ revision, turns: turns.describe('Quarter turns clockwise.') });
export const combineSchema = z.strictObject({
  receipts: distinct(
    z
      .array(z.strictObject({ id: recordId, revision }))
      .min(2, 'Choose at least two receipts.')
      .max(20),
    ({ id }) => id,
  ),
});
const fraction = z.number().min(0).max(1);
const place = z.strictObject({ x: fraction, y: fraction, width: fraction, height: fraction });
const pages = z.array(z.number().int().min(1).max(30)).min(1).max(30);
/** A PDF by its pages; a picture by where papers are on it, as fractions from its top left corner as the camera meant it. */
export const divideSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('pages'), revision, parts: z.array(pages).min(2).max(30) }),
  z.strictObject({ by: z.literal('places'), revision, places: z.array(place).min(2).max(12) }),
]);
export const receiptsQuery = z.strictObject({
  of: z.enum(['gone']).optional().describe('Those that were taken away, or that others were made of.'),
});
export const madeAnswer = z.object({ made: z.array(answeredId) });
export const seenSchema = z.strictObject({ revision });
export const chargeMarkSchema = z.strictObject({
  revision,
  reason: z.string().trim().min(1, 'Say where it was claimed.').max(300).nullable(),
});

/** Whether nothing is named twice, what is not named left out. */
const isDistinct = (ids: readonly (string | null | undefined)[]): boolean => {
  const named = ids.filter((id) => id != null);
  return new Set(named).size === named.length;
};

/** What becomes lines: a receipt, a charge, or both together as one spending. */
const taken = z.strictObject({
  receipt: recordId.nullish(),
  charge: recordId.nullish(),
  category: parts.id.nullish(),
  personal: z.boolean().default(false),
});
export const takeSchema = z.strictObject({
  claim: z.strictObject({ number: parts.id, revision }).nullable().describe('A claim in preparation; null begins one.'),
  purpose: z.string().trim().min(1, 'Say what the claim is for.').max(200).nullish(),
  take: z
    .array(taken)
    .min(1, 'Choose at least one receipt or charge.')
    .max(200)
    .refine((all) => isDistinct(all.map((t) => t.receipt)), 'names a receipt twice')
    .refine((all) => isDistinct(all.map((t) => t.charge)), 'names a charge twice'),
});

const lineRef = z.strictObject({ claim: parts.id, line: parts.id });
const lineName = ({ claim, line }: z.infer<typeof lineRef>): string => `${claim} ${line}`;
const revisions = z.record(parts.id, revision).describe('The revision that was seen of each claim.');
export const pairSchema = z.strictObject({
  revisions,
  pairs: z
    .array(
      z.strictObject({
        lines: distinct(z.array(lineRef).min(1).max(5), lineName),
        charge: recordId.nullish(),
        charges: distinct(z.array(recordId).min(2).max(5))
          .optional()
          .describe('The charges one line is the sum of; it is parted among them.'),
        receipt: recordId.nullish(),
        takeAmount: z
          .boolean()
          .default(false)
          .describe('Where line and charge differ, the line takes the bank’s amount.'),
      }),
    )
    .min(1)
    .max(500)
    .refine((all) => isDistinct(all.flatMap((p) => p.lines.map(lineName))), 'names a line in two pairs'),
});
export const unpairSchema = z.strictObject({
  revisions,
  lines: distinct(z.array(lineRef).min(1).max(500), lineName),
  what: z.enum(['charge', 'receipt']),
});
const tax = z.object({ rate: z.string().nullable(), base: figure.optional(), tax: figure.optional() });
const confirmed = z.object({
  amount: z.string(),
  currency: z.string(),
  date,
  merchant: z.string(),
  taxNumber: z.string().nullable(),
  cardDigits: z.string().nullable(),
  taxes: z.array(tax),
});
const receipt = z.object({
  id: recordId,
  revision: z.number(),
  name: z.string(),
  cameIn: z.string().nullable(),
  standing: z.enum(RECEIPT_STATES),
  madeFrom: z.array(recordId),
  addedAt: moment,
  kind: z.enum(['picture', 'pdf', 'invoice', 'mail']),
  pages: z.array(page),
  state: z.enum(['waiting', 'read', 'failed']),
  problem: z.string().nullable(),
  method: z.enum(['recognised', 'text', 'e-invoice']).nullable(),
  reading: stored<Reading>('reading').nullable(),
  remarks: z.array(z.string()),
  confirmed: confirmed.nullable(),
  usedOn: z.array(z.object({ claim: id, line: id, state: z.string() })),
  alike: z.array(
    z.object({
      how: z
        .enum(['file', 'picture', 'figures'])
        .describe('The same file, almost the same picture, or the same figures.'),
      own: z.boolean(),
      id: recordId.nullable(),
      name: z.string().nullable(),
      addedAt: moment,
    }),
  ),
});
export const receiptsAnswer = z.object({
  receipts: z.array(receipt),
  more: z.number().int().describe('How many older ones are not shown.'),
});
const added = z.discriminatedUnion('ok', [
  z.object({ ok: z.literal(true), name: z.string(), id: answeredId, fresh: z.boolean() }),
  z.object({ ok: z.literal(false), name: z.string(), says: z.string() }),
]);
export const addedAnswer = z.object({ added: z.array(added) });

const charge = z.object({
  id: recordId,
  revision: z.number(),
  card: id,
  label: z.string(),
  cardKind: z.enum(['company', 'purchasing']),
  holder: z.string(),
  bookedOn: date,
  purchasedOn: date,
  amount: z.string(),
  currency: z.string(),
  settled: z.object({ amount: z.string(), currency: z.string() }),
  merchant: z.string(),
  country: z.string().nullable(),
  categoryCode: z.string().nullable(),
  category: z.string().nullable(),
  state: z.enum(['open', 'partly on claims', 'on a claim', 'claimed already']),
  reason: z.string().nullable(),
  left: z.string(),
  lines: z.array(
    z.object({
      claim: id,
      line: id,
      state: z.string(),
      personal: z.boolean(),
      amount: z.string(),
      currency: z.string(),
    }),
  ),
});
export const chargesAnswer = z.object({ charges: z.array(charge) });

const card = z.object({
  id,
  digits: z.string(),
  label: z.string(),
  kind: z.enum(['company', 'purchasing']),
  currency: z.string(),
  holder: z.string(),
  closesOn: z.number().nullable(),
});
const month = z.object({
  month: z.string(),
  charges: z.number(),
  closedBy: z.string().nullable(),
  closedAt: moment.nullable(),
});
export const cardsAnswer = z.object({
  cards: z.array(card.extend({ own: z.boolean(), months: z.array(month) })),
});
export const monthAnswer = z.object({
  card,
  month: z.string(),
  /** The first and last day of the month, by the cycle of the card. */
  days: z.object({ from: date, to: date }),
  state: z.enum(['open', 'closed']),
  revision: z.number(),
  charges: z.array(charge),
  statements: z.array(
    z.object({
      id: answeredId,
      name: z.string(),
      source: z.string(),
      from: date,
      to: date,
      opening: z.string(),
      closing: z.string(),
      entries: z.number(),
    }),
  ),
  proof: stored<MonthProof>('proof of a month'),
  closedBy: z.string().nullable(),
  closedAt: moment.nullable(),
  may: z.array(z.enum(['close', 'reopen'])),
});

const pairLine = z.object({
  ref: z.string(),
  claim: id,
  line: id,
  date,
  amount: z.string(),
  currency: z.string(),
  merchant: z.string().nullable(),
  category: z.string().nullable(),
  paidBy: z.string(),
  personal: z.boolean(),
  receipt: answeredId.nullable(),
  charge: answeredId.nullable(),
});
const looseReceipt = z.object({
  id: answeredId,
  name: z.string(),
  state: z.string(),
  amount: figure,
  currency: z.string().nullable(),
  date: date.nullable(),
  merchant: z.string().nullable(),
});
const pairs = z.array(stored<Pair>('pair'));
export const pairsAnswer = z.object({
  revisions: z.record(id, z.number()),
  drafts: z.array(z.object({ number: id, purpose: z.string(), revision: z.number() })),
  lines: z.array(pairLine),
  charges: z.array(charge),
  receipts: z.array(looseReceipt),
  proposals: z.object({ charges: pairs, receipts: pairs, spendings: pairs }),
});
export const takenAnswer = z.object({ number: id });

export type Confirmation = z.infer<typeof confirmSchema>;
export type Take = z.infer<typeof takeSchema>;
export type PairRequest = z.infer<typeof pairSchema>;
export type UnpairRequest = z.infer<typeof unpairSchema>;
export type Page = z.infer<typeof page>;
export type Confirmed = z.infer<typeof confirmed>;
export type GatheredReceipt = z.infer<typeof receipt>;
export type Added = z.infer<typeof added>;
export type Charge = z.infer<typeof charge>;
export type CardView = z.infer<typeof cardsAnswer>['cards'][number];
export type MonthView = z.infer<typeof monthAnswer>;
export type PairLine = z.infer<typeof pairLine>;
export type LooseReceipt = z.infer<typeof looseReceipt>;
export type PairsView = z.infer<typeof pairsAnswer>;
