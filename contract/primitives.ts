import { z } from 'zod';
import { parts } from '../core/documents/case.schema.ts';

/** The pieces requests and answers are made of. Amounts are decimal strings with the decimals of their currency. */
export const revision = z.number().int().min(1).describe('The revision of the record that was seen.');
export const words = z.string().trim().min(1, 'Say why in a few words.').max(2000, 'Keep it under 2,000 characters.');
export const { id, text, currency, amount, decimal, coding } = parts;
/** A calendar date in the years that records, rates and rules can have. */
export const date = parts.date.refine((d) => d >= '1900-01-01' && d <= '2199-12-31', 'has to lie in 1900 to 2199');

/** A list of which nothing is named twice, by what names it. */
export const distinct = <T extends z.ZodType>(
  list: z.ZodArray<T>,
  nameOf: (one: z.infer<T>) => unknown = (one) => one,
) => list.refine((all) => new Set(all.map(nameOf)).size === all.length, 'names one of them twice');

/** A number the database gave to a record, as a string of digits. */
export const recordId = z.string().regex(/^\d{1,18}$/, 'is not the number of a record');
/** The same in an answer, where it comes from the database as a bigint. */
export const answeredId = z.union([z.bigint(), z.string()]).transform(String).pipe(recordId);
/** A moment: ISO 8601 in UTC. */
export const moment = z.union([z.date(), z.string()]).transform((at) => new Date(at).toISOString());
export const nothing = z.strictObject({});

/**
 * A document that was checked when it was stored and is passed on as it is. Its own schema, named here, is in
 * docs/schemas.
 */
export const stored = <T>(format: string) => z.custom<T>((value) => value !== undefined).describe(format);

export const page = z.object({
  width: z.number().int(),
  height: z.number().int(),
  turns: z.number().int().describe('Quarter turns clockwise after which it stands upright.'),
});
/** A file that stands beside a record. */
export const attachment = z.object({
  id: recordId,
  name: z.string(),
  pages: z.array(page),
  by: z.string(),
  at: moment,
});
/** A record as it was seen, where there is no body to say so. */
export const seenQuery = z.strictObject({ revision: z.coerce.number().int().min(1) });

/** One event of a record's history. */
export const historyFields = z.object({
  seq: z.number(),
  at: moment,
  kind: z.string(),
  facts: z.record(z.string(), z.unknown()),
  words: z.record(z.string(), z.unknown()).nullable(),
  actor: z.string().nullable().describe('null: the system did it.'),
});

export type Attachment = z.infer<typeof attachment>;
