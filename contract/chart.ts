import { z } from 'zod';
import type { Category, TaxCode } from '../core/documents/case.schema.ts';
import { date, stored } from './primitives.ts';

/** Everything a screen needs to name and choose codes. */
const value = z.object({
  dimension: z.string(),
  code: z.string(),
  name: z.string(),
  from: date.nullable(),
  to: date.nullable(),
  owner: z.string().nullable().describe('Who answers questions about the code.'),
});
const named = z.object({ id: z.string(), name: z.string() });
export const chartAnswer = z.object({
  dimensions: z.array(named),
  values: z.array(value),
  categories: z.array(stored<Category>('category of a book of ebbet-case/1')),
  taxCodes: z.array(stored<TaxCode>('tax code of a book of ebbet-case/1')),
  vehicles: z.array(z.string()).describe('Those a rate of mileage is known for.'),
  statement: z
    .object({ version: z.string(), text: z.string() })
    .nullable()
    .describe('That the policy was followed; accepted when a claim is handed in.'),
  accounts: z.array(z.object({ code: z.string(), name: z.string() })),
});
/** For whom somebody may prepare plans and claims, themselves among them. */
export const payeesAnswer = z.object({ people: z.array(named) });

export type Chart = z.infer<typeof chartAnswer>;
export type DimensionValue = z.infer<typeof value>;
