import { z } from 'zod';
import { decimalToFraction, isDecimal } from '../../../core/numbers/decimal.ts';
import { minorUnits } from '../../../core/numbers/minorUnits.ts';
import { isIsoDate } from '../../../core/numbers/isoDate.ts';
import { magnitude, readAmount } from '../../../core/numbers/amount.ts';
import { FIELDS, type Field, type Sureness } from '../../../core/evidence/reading/reading.types.ts';
import type { Confirmation } from '../../../contract/gather.ts';
import type { GatheredReceipt } from '../../api/gather.ts';
import { receiptSays } from '../../words/receiptSays.ts';
import { readTyped, readTypedAmount } from '../../parts/typed.ts';

/** The fields of a receipt as they are typed. */
export type Typed = Record<Field, string> & { taxes: TypedTax[] };
export interface TypedTax {
  rate: string;
  base: string;
  tax: string;
}

/** What stands in the form at first: what was confirmed, else what was read. */
export function typedOf(receipt: GatheredReceipt): Typed {
  const { confirmed, reading } = receipt;
  const taxes = confirmed?.taxes ?? reading?.taxes ?? [];
  return {
    ...(Object.fromEntries(FIELDS.map((field) => [field, receiptSays(receipt, field)])) as Record<Field, string>),
    taxes: taxes.map(({ rate, base, tax }) => ({ rate: rate ?? '', base: base ?? '', tax: tax ?? '' })),
  };
}

/** How sure the value is that stands in a field: of the person when it was confirmed or changed, else of the reader. */
export function surenessOf(receipt: GatheredReceipt, field: Field, value: string): Sureness | 'by you' | 'not found' {
  const found = receipt.reading?.[field];
  if (receipt.confirmed || (found && found.value !== value) || (!found && value !== '')) return 'by you';
  return found?.sure ?? 'not found';
}

/** What is wrong with a field, in words that say what to do; null when nothing is. `today` is ISO 8601. */
export function faultOf(field: Field, typed: Typed, today: string): string | null {
  const value = typed[field].trim();
  switch (field) {
    case 'amount':
      if (value === '') return 'Enter the total of the receipt.';
      return minorOf(typed.amount, typed) === null
        ? 'Enter an amount such as 12.50, with the decimals of its currency.'
        : null;
    case 'currency':
      return minorUnits(value.toUpperCase()) === null ? 'Enter a currency code such as EUR.' : null;
    case 'date':
      if (!isIsoDate(value)) return 'Enter the date of the purchase.';
      return value > today ? 'This day has not come yet. Enter the date of the purchase.' : null;
    case 'merchant':
      return value === '' ? 'Enter who sold.' : null;
    case 'cardDigits':
      return value === '' || /^\d{4}$/.test(value) ? null : 'Enter four digits, or nothing.';
    case 'taxNumber':
      return null;
    default:
      return field satisfies never;
  }
}

const currencyOf = ({ currency }: Pick<Typed, 'currency'>): string => currency.trim().toUpperCase();

/** Minor units of what was typed, or null while it is no amount of the currency. */
function minorOf(text: string, typed: Pick<Typed, 'currency'>): bigint | null {
  const amount = amountOf(text, typed);
  return amount === null ? null : readAmount(amount, currencyOf(typed));
}
const amountOf = (text: string, typed: Pick<Typed, 'currency'>): string | null =>
  readTypedAmount(text, currencyOf(typed));

/** What is wrong with one field of a tax. */
export function taxFaultOf(field: keyof TypedTax, tax: TypedTax, typed: Typed): string | null {
  const value = tax[field].trim();
  if (field === 'rate') {
    const rate = readTyped(value);
    const known = rate !== null && isDecimal(rate) && isPercent(rate);
    return value === '' || known ? null : 'Enter a rate from 0 to 100, or nothing.';
  }
  if (value === '') return field === 'tax' ? 'Enter the tax.' : null;
  const [minor, total] = [minorOf(value, typed), minorOf(typed.amount, typed)];
  if (minor === null) return 'Enter an amount such as 2.34.';
  if (total !== null && magnitude(minor) > magnitude(total)) return 'This is more than the total.';
  return null;
}

const isPercent = (rate: string): boolean => {
  const { n, d } = decimalToFraction(rate);
  return n >= 0n && n <= 100n * d;
};

const text = z.string();
const typedTax = z.object({ rate: text, base: text, tax: text });
const TAX_FIELDS = ['rate', 'base', 'tax'] as const;

/** The form as it has to be before it is sent; each fault at its field. */
export const typedSchema = (today: string) =>
  z
    .object({
      amount: text,
      currency: text,
      date: text,
      merchant: text,
      taxNumber: text,
      cardDigits: text,
      taxes: z.array(typedTax).max(10, 'At most ten taxes are kept.'),
    })
    .superRefine((typed, { addIssue }) => {
      const say = (path: (string | number)[], message: string | null) =>
        message !== null && addIssue({ code: 'custom', path, message });
      for (const field of FIELDS) say([field], faultOf(field, typed, today));
      typed.taxes.forEach((tax, i) => {
        for (const field of TAX_FIELDS) say(['taxes', i, field], taxFaultOf(field, tax, typed));
      });
    });

/** The fields as they are sent; they were found right before. */
export function confirmationOf({ revision }: Pick<GatheredReceipt, 'revision'>, typed: Typed): Confirmation {
  return {
    revision,
    amount: amountOf(typed.amount, typed)!,
    currency: currencyOf(typed),
    date: typed.date,
    merchant: typed.merchant.trim(),
    taxNumber: typed.taxNumber.trim() || null,
    cardDigits: typed.cardDigits.trim() || null,
    taxes: typed.taxes.map(({ rate, base, tax }) => ({
      rate: readTyped(rate),
      base: base.trim() === '' ? null : amountOf(base, typed),
      tax: amountOf(tax, typed),
    })),
  };
}

/** Everything a line needs was confirmed, or read with certainty. */
export const isReady = ({ confirmed, reading }: GatheredReceipt): boolean =>
  confirmed !== null
  || (['amount', 'currency', 'date', 'merchant'] as const).every((f) => reading?.[f]?.sure === 'sure');

/** Whether it was read well enough to be confirmed as it is: nothing is missing or impossible. */
export const isConfirmable = (receipt: GatheredReceipt, today: string): boolean =>
  receipt.confirmed === null && receipt.state === 'read' && typedSchema(today).safeParse(typedOf(receipt)).success;

/** By what a receipt is called: who sold, where that is known well enough, else the name of its file. */
export function titleOf({ confirmed, reading, name }: GatheredReceipt): string {
  const read = reading?.merchant;
  return confirmed?.merchant ?? (read && read.sure !== 'doubtful' ? read.value : name);
}
