import { z } from 'zod';
import { count, fieldName } from './primitives.ts';

/** Facts a line has a place of their own for; every other field of a category is a text under its name. */
export const FACTS = ['nights', 'attendees', 'quantity', 'journey', 'stay'] as const;
export type Fact = (typeof FACTS)[number];

/** A field that a category asks of its lines. Those it does not name are hidden. */
export const categoryFieldSchema = z.strictObject({
  name: fieldName.max(40, 'is longer than 40 characters'),
  label: z.string().min(1, 'Give it a label.').max(200),
  need: z.enum(['required', 'optional']),
  /** Of attendees: below this many, each is named. */
  namesUnder: count.nullish(),
  /** Of a text: how it is typed. */
  as: z.enum(['text', 'date']).nullish(),
});

export type CategoryField = z.infer<typeof categoryFieldSchema>;
