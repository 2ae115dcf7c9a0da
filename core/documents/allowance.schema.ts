import { z } from 'zod';
import { currency, date, dated, id, notNegative, percent, positive, text } from './primitives.ts';

/** Mileage and daily allowances: the rates of the book, and the facts of a line that is computed by them. */
const unit = z.enum(['km', 'mile']);
const MEALS = ['breakfast', 'lunch', 'dinner'] as const;

/** A rate up to a cumulative distance of the person's tax year; the last tier has no end. Amounts per unit of distance. */
const tier = z.strictObject({ upTo: positive.nullable(), rate: notNegative });
/** The rates of a vehicle between two dates. */
export const mileageRateSchema = z.strictObject({
  vehicle: id,
  currency,
  unit,
  tiers: z.array(tier).min(1).max(20),
  /** Supplement per passenger and unit of distance. */
  passenger: notNegative.nullish(),
  /** The part of each unit that is fuel: tax is computed on it alone. */
  fuel: notNegative.nullish(),
  /** What is free of income tax, by tiers of its own; all of it when missing. */
  taxFree: z.array(tier).max(20).nullish(),
  ...dated,
});
/** The journey a line pays for; its day is the line's. */
export const journeySchema = z.strictObject({
  vehicle: id,
  distance: notNegative,
  unit,
  passengers: z.number().int().min(0).max(100).nullish(),
  /** Distance of the tax year before this journey, in the journey's unit. */
  before: notNegative.nullish(),
});

/** What a provided meal takes off: an amount, or a percent of the full day's rate. */
const mealReduction = z.union([z.strictObject({ amount: notNegative }), z.strictObject({ percent })]);
const hours = z.number().min(0).max(24);
/** The daily allowance of a country, or a place in it, between two dates. */
export const allowanceRateSchema = z.strictObject({
  country: id,
  place: text.nullish(),
  currency,
  full: notNegative,
  /** First and last day: a percent of the full rate … */
  edge: percent.nullish(),
  /** … or by hours away: the band with the most hours reached. */
  bands: z.array(z.strictObject({ hours, percent })).max(24).nullish(),
  meals: z.partialRecord(z.enum(MEALS), mealReduction).nullish(),
  /** What is free of income tax on a full day; all of it when missing. */
  taxFree: notNegative.nullish(),
  ...dated,
});
/** A day of the stay a line pays for. */
export const stayDaySchema = z.strictObject({
  date,
  country: id,
  place: text.nullish(),
  /** The first or last day of the trip, or a trip of one day. */
  edge: z.boolean().nullish(),
  hours: hours.nullish(),
  private: z.boolean().nullish(),
  provided: z
    .array(z.enum(MEALS))
    .max(3)
    .refine((meals) => new Set(meals).size === meals.length, 'names a meal twice')
    .nullish(),
});

export type DistanceUnit = z.infer<typeof unit>;
export type Tier = z.infer<typeof tier>;
export type MileageRate = z.infer<typeof mileageRateSchema>;
export type Journey = z.infer<typeof journeySchema>;
export type MealReduction = z.infer<typeof mealReduction>;
export type AllowanceRate = z.infer<typeof allowanceRateSchema>;
export type StayDay = z.infer<typeof stayDaySchema>;
