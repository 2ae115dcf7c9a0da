import { z } from 'zod';
import { parts } from '../../../core/documents/case.schema.ts';

const text = z.string().trim().min(1).max(140);

/** What a person confirms of a receipt. Amounts are decimal strings with the decimals of the currency. */
export const confirmSchema = z.strictObject({
  amount: parts.amount,
  currency: parts.currency,
  date: parts.date,
  merchant: text,
  taxNumber: z.string().trim().max(40).nullish(),
  cardDigits: z
    .string()
    .regex(/^\d{4}$/, 'Enter the last four digits of the card.')
    .nullish(),
  taxes: z
    .array(z.strictObject({ rate: parts.decimal, base: parts.amount.nullish(), tax: parts.amount.nullish() }))
    .max(10)
    .default([]),
});
export type Confirmation = z.infer<typeof confirmSchema>;
