import { z } from 'zod';
import { minorUnits } from '../numbers/minorUnits.ts';
import { isIsoDate } from '../numbers/isoDate.ts';
import { isDecimal } from '../numbers/decimal.ts';

/** The pieces every document is made of. Amounts, percents, rates and weights are decimal strings. */
export const id = z.string().min(1, 'must not be empty').max(200, 'is longer than 200 characters');
export const text = z.string().max(10_000, 'is longer than 10,000 characters');
export const date = z.string().refine(isIsoDate, 'is not a calendar date written YYYY-MM-DD').meta({ format: 'date' });
export const currency = z
  .string()
  .refine((c) => minorUnits(c) !== null, 'is not an ISO 4217 currency with minor units')
  .meta({ pattern: '^[A-Z]{3}$', description: 'ISO 4217 code of a currency with minor units' });
export const decimal = z
  .string()
  .refine(isDecimal, 'is not a plain decimal number in a string')
  .meta({ pattern: '^-?(0|[1-9][0-9]*)(\\.[0-9]+)?$' });
export const amount = decimal
  .refine((a) => !/^-0(\.0+)?$/.test(a), 'is a negative zero')
  .meta({
    pattern: '^(?!-0(\\.0+)?$)-?(0|[1-9][0-9]*)(\\.[0-9]+)?$',
    description: 'exactly the decimals of its currency',
  });
export const notNegative = decimal
  .refine((d) => !d.startsWith('-'), 'must not be negative')
  .meta({ pattern: '^(0|[1-9][0-9]*)(\\.[0-9]+)?$' });
export const positive = notNegative
  .refine((d) => /[1-9]/.test(d), 'must be above 0')
  .meta({ pattern: '^(?=.*[1-9])(0|[1-9][0-9]*)(\\.[0-9]+)?$' });
export const percent = notNegative
  // by its digits: as a number, 100.00000000000000001 would be 100
  .refine((p) => /^(100(\.0+)?|[1-9]?[0-9](\.[0-9]+)?)$/.test(p), 'must be between 0 and 100')
  .meta({ pattern: '^(100(\\.0+)?|[1-9]?[0-9](\\.[0-9]+)?)$' });
export const dimension = z.string().regex(/^[A-Za-z][A-Za-z0-9_-]*$/, 'is not a name of a dimension');
/** How many dimensions there are at most, and so codes in a coding. */
export const MOST_DIMENSIONS = 30;
const few = (most: number) => [(r: object) => Object.keys(r).length <= most, `has more than ${most} entries`] as const;
export const coding = z.record(dimension, id).refine(...few(MOST_DIMENSIONS));
export const fieldName = z.string().regex(/^[A-Za-z][A-Za-z0-9]*$/, 'is not a name of a field');
export const fields = z.record(fieldName, text).refine(...few(100));
export const count = z.number().int('is not a whole number').min(1, 'must be at least 1');
export const dated = { from: date.nullish(), to: date.nullish() };
