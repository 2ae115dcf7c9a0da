import type { Role } from '../core/workflow/lifecycle.types.ts';
import { STATEMENT_STATES } from '../core/workflow/lifecycles/gathering.ts';
import { z } from 'zod';
import { answeredId, date, id, moment } from './primitives.ts';

/** Who looks at the statements of cards. */
export const READERS: readonly Role[] = ['reviewer', 'controller', 'administrator', 'auditor'];

/** Statements of cards: files by hand, and the bank's feed. */
const column = z.number().int().min(0).max(99);
/** Which column of a table holds what, and how it writes dates and amounts. */
export const mappingSchema = z.strictObject({
  delimiter: z.enum([',', ';', '\t', '|']),
  mark: z.enum(['.', ',']),
  order: z.enum(['dmy', 'mdy', 'ymd']),
  /** Whether what was spent stands with a plus or with a minus. */
  spent: z.enum(['positive', 'negative']),
  date: column,
  amount: column,
  merchant: column,
  /** What came back, where it stands in a column of its own and `amount` is what was spent. */
  credit: column.nullable().default(null),
  /** A mark that says whether an amount was spent or came back. */
  side: column.nullable().default(null),
  /** The currency of the amount, which has to be the card's. */
  currency: column.nullable().default(null),
  purchased: column.nullable(),
  reference: column.nullable(),
  originalAmount: column.nullable(),
  originalCurrency: column.nullable(),
  categoryCode: column.nullable(),
});
/** What goes with a statement file: for a table, the card it is of and which column holds what. */
export const importSchema = z.strictObject({
  card: z.string().min(1).max(40).optional(),
  mapping: mappingSchema.optional(),
  /** Only says what the rows would become. */
  rehearse: z.boolean().optional(),
});

const statement = z.object({
  id: answeredId,
  source: z.enum(['feed', 'file']),
  name: z.string(),
  format: z.string(),
  card: id.nullable(),
  label: z.string().nullable(),
  currency: z.string().nullable(),
  from: date.nullable(),
  to: date.nullable(),
  opening: z.string().nullable(),
  closing: z.string().nullable(),
  entries: z.number(),
  added: z.number(),
  state: z.enum(STATEMENT_STATES),
  says: z.string().nullable(),
  by: z.string().nullable(),
  at: moment,
  /** Whether it is one that can be taken back; whether nothing of it is used is seen when it is tried. */
  may: z.array(z.enum(['takeBack'])),
});
export const statementsAnswer = z.object({
  statements: z.array(statement),
  feed: z.object({ connected: z.boolean(), at: moment.nullable(), says: z.string().nullable() }),
});
export const takenBackAnswer = z.object({ removed: z.number() });
const outcome = z.object({
  account: z.string().nullable(),
  from: z.string().nullable(),
  to: z.string().nullable(),
  state: z.enum(['imported', 'there already', 'refused']),
  /** Of the file: those that are new, those that were there already, and those that are not yet booked and were left out. */
  entries: z.number(),
  added: z.number(),
  known: z.number(),
  pending: z.number(),
  says: z.string().nullable(),
});
const problem = z.object({ line: z.number(), says: z.string() });
/** A row as it would be taken: positive is spent, negative came back. */
const rehearsedRow = z.object({
  bookedOn: date,
  settled: z.string(),
  charged: z.object({ amount: z.string(), currency: z.string() }).nullable(),
  merchant: z.string(),
  reference: z.string().nullable(),
});
export const fileAnswer = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('imported'),
    name: z.string(),
    format: z.string(),
    outcomes: z.array(outcome),
    /** Rows of a table that were not taken; with the entries they are all of its rows. */
    problems: z.array(problem),
  }),
  z.object({
    kind: z.literal('rehearsed'),
    name: z.string(),
    card: id,
    currency: z.string(),
    rows: z.number(),
    entries: z.number(),
    from: date.nullable(),
    to: date.nullable(),
    spent: z.string(),
    cameBack: z.string(),
    first: z.array(rehearsedRow),
    last: z.array(rehearsedRow),
    problems: z.array(problem),
  }),
  z.object({
    kind: z.literal('table'),
    name: z.string(),
    columns: z.array(z.string()),
    sample: z.array(z.array(z.string())),
    rows: z.number(),
    proposed: mappingSchema.partial(),
    /** Who said so last, when, and for which card. */
    remembered: z.object({ by: z.string(), at: moment, card: id.nullable() }).nullable(),
  }),
]);

export type Mapping = z.infer<typeof mappingSchema>;
export type ImportOptions = z.infer<typeof importSchema>;
export type StatementRow = z.infer<typeof statement>;
export type Outcome = z.infer<typeof outcome>;
export type FileAnswer = z.infer<typeof fileAnswer>;
