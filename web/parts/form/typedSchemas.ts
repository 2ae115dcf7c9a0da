import { z } from 'zod';
import { readMoney } from '../readMoney.ts';

/** Words without which nothing goes on. */
export const wanted = (says: string) => z.string().refine((typed) => typed.trim() !== '', says);
/** A country of two letters, or nothing. */
export const countryTyped = z
  .string()
  .refine((typed) => /^([a-z]{2})?$/i.test(typed.trim()), 'The country is two letters, such as PT.');

/** An amount as people type it, of a currency or with another one: "12.5", "900 JPY". */
export const moneyTyped = (currency: string) =>
  z.string().superRefine((typed, context) => {
    const money = readMoney(typed, currency);
    if (!money.ok) context.addIssue({ code: 'custom', message: money.problem });
  });

/** Both days of a span, each or both of which may be empty. */
export const spanTyped = { from: z.string(), to: z.string() };
export const isSpan = ({ from, to }: { from: string; to: string }): boolean => !from || !to || from <= to;
export const NO_SPAN = { path: ['to'], message: 'The last day is before the first.' };
