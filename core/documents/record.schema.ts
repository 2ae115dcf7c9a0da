import { z } from 'zod';
import { journalRow } from './assessment.schema.ts';
import { currency, date, id } from './primitives.ts';

/** ebbet-event/2 and ebbet-journal/1: what is exported for an auditor to keep, and verified by the command line. */
const digest = z.string().regex(/^[0-9a-f]{64}$/, 'is not a SHA-256 digest in hexadecimal');

export const eventSchema = z.strictObject({
  format: z.literal('ebbet-event/2'),
  recordKind: id,
  recordId: id,
  seq: z.number().int().min(1),
  at: z.string().regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/, 'is not a moment in UTC with milliseconds'),
  /** null: the system did it. */
  actor: id.nullable(),
  kind: id,
  facts: z.record(z.string(), z.unknown()),
  /** SHA-256 of the document, journal or file the event is about. */
  about: digest.nullable(),
  privateHash: digest.nullable(),
  previousHash: digest,
  hash: digest,
  /** By the key of the application: that it wrote the event. */
  mark: digest.nullish(),
});

/** ebbet-words/1: the words of an event with the salt they were hashed with. */
export const wordsSchema = z.strictObject({
  format: z.literal('ebbet-words/1'),
  recordKind: id,
  recordId: id,
  seq: z.number().int().min(1),
  salt: z.string().min(1),
  words: z.record(z.string(), z.unknown()),
});
export type ExportedWords = z.infer<typeof wordsSchema>;

const row = z.strictObject({ position: z.number().int().min(1), ...journalRow.shape });
export const journalSchema = z.strictObject({
  format: z.literal('ebbet-journal/1'),
  number: id,
  entity: id,
  currency,
  date,
  purpose: id,
  source: z.strictObject({ kind: id, id }),
  reverses: id.nullable(),
  corrects: id.nullable(),
  rows: z.array(row).min(1),
  hash: digest,
});

export type ExportedJournal = z.infer<typeof journalSchema>;
export type LedgerJournal = Omit<ExportedJournal, 'hash'>;
