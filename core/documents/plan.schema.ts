import { z } from 'zod';
import { amount, coding, count, currency, date, id, text } from './primitives.ts';

/** A plan as people write it: a trip, and what is estimated of it. */
export const PER = ['trip', 'day', 'night', 'allowance'] as const;
const per = z.enum(PER);
/** How often at most a price can be counted. */
const MOST_COUNT = 10_000;

export const estimateSchema = z.strictObject({
  id,
  category: id,
  description: text.nullish(),
  /** What it is estimated by: once, for each day, for each night, or for each day at the daily allowance of the country. */
  per,
  /** How often; without it the days or nights of the trip, private ones left out. */
  count: z.number().int().min(0).max(MOST_COUNT).nullish(),
  /** What one costs; without it what the limits of the country allow. */
  price: z.strictObject({ amount, currency }).nullish(),
  coding: coding.nullish(),
});

export const tripSchema = z.strictObject({
  country: z
    .string()
    .regex(/^[A-Z]{2}$/, 'is not a country of two letters')
    .nullish(),
  place: text.nullish(),
  from: date.nullish(),
  to: date.nullish(),
  privateDays: z.array(date).max(400).nullish(),
});

/** What a plan for a kind of trip begins with. */
export const planTemplateSchema = z.strictObject({
  name: z.string().min(1).max(200),
  lines: z
    .array(z.strictObject({ category: id, description: text.nullish(), per, count: count.nullish() }))
    .min(1)
    .max(60),
});

export type Per = (typeof PER)[number];
export type PlannedEstimate = z.infer<typeof estimateSchema>;
export type Trip = z.infer<typeof tripSchema>;
export type PlanTemplate = z.infer<typeof planTemplateSchema>;
