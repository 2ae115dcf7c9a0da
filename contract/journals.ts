import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';
import { answeredId, date, id, moment, page, recordId, words } from './primitives.ts';

/** The ledger: journals of every source, and what is open. */
export const reverseSchema = z.strictObject({ date: date, reason: words });
export const exportSchema = z.strictObject({
  entity: parts.id.optional(),
  from: date.optional(),
  to: date.optional(),
});
/** Which journals: of an entity, between two days, of a person, claim or number, standing or not. */
export const journalPageSchema = z.strictObject({
  before: recordId.optional().describe('The id of the last one seen.'),
  entity: parts.id.optional(),
  from: date.optional(),
  to: date.optional(),
  q: z.string().trim().max(100).optional().describe('Part of a person’s name, a journal’s or a claim’s number.'),
  state: z.enum(['standing', 'reversed', 'reversals']).optional(),
  order: z.enum(['posted', 'date']).default('posted').describe('Newest first, by when it was posted or by its date.'),
});
export type JournalPage = z.infer<typeof journalPageSchema>;
const total = z.object({ currency: z.string(), journals: z.number().int(), amount: z.string() });

const header = z.object({
  number: id,
  entity: id,
  currency: z.string(),
  date,
  purpose: z.string(),
  source: z.object({ kind: z.string(), id: z.string() }),
  live: z.boolean(),
  claim: id.nullable(),
  claimVersion: z.number().nullable(),
  person: z.string().nullable(),
  about: z.string(),
  reason: z.string().nullable(),
  postedBy: z.string(),
  postedAt: moment,
  reverses: id.nullable(),
  reversedBy: id.nullable(),
  total: z.string(),
});
const figure = z.string().nullable();
/** Where a row came from, as it was when it was posted: the line, its share, its receipt. */
const origin = z.object({
  merchant: z.string().nullable(),
  category: z.string().nullable(),
  date,
  amount: z.string(),
  currency: z.string(),
  share: z.object({ of: z.number(), gross: figure, recoverable: figure, cost: figure }).nullable(),
  receipt: z
    .object({
      id: recordId,
      amount: figure,
      currency: z.string().nullable(),
      date: date.nullable(),
      merchant: z.string().nullable(),
      pages: z.array(page),
    })
    .nullable(),
});
const row = z.object({
  position: z.number(),
  account: z.string(),
  coding: z.record(z.string(), z.string()),
  debit: z.string(),
  credit: z.string(),
  currency: z.string(),
  amount: z.string(),
  line: z.string().nullable(),
  item: z.string().nullable(),
  share: z.number().nullable(),
  taxCode: z.string().nullable(),
  text: z.string(),
  origin: origin.nullable(),
});
const period = z.object({ id, from: date, to: date });
const ready = z.object({
  number: id,
  revision: z.number(),
  entity: id,
  claimant: z.string(),
  purpose: z.string(),
  clearedBy: z.string(),
  toPay: z.string().nullable(),
  currency: z.string(),
  mayPost: z.boolean(),
  why: z.string().nullable().describe('Why this person may not post it.'),
});

export const journalsAnswer = z.object({
  journals: z.array(header),
  next: answeredId.nullable(),
  totals: z.array(total).nullable().describe('Of everything that was asked for; with the first page alone.'),
  entities: z.array(id).describe('The entities this person sees journals of.'),
});
export const readyAnswer = z.object({ claims: z.array(ready) });
export const journalAnswer = z.object({
  journal: header,
  rows: z.array(row),
  openPeriods: z.array(period),
  mayReverse: z.boolean(),
});

export type ReverseRequest = z.infer<typeof reverseSchema> & { journal: string };
export type JournalHeader = z.infer<typeof header>;
export type JournalRow = z.infer<typeof row>;
export type JournalAnswer = z.infer<typeof journalAnswer>;
export type ReadyClaim = z.infer<typeof ready>;
