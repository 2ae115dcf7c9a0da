import { minorUnits } from '../../../core/numbers/minorUnits.ts';
import { isIsoDate } from '../../../core/numbers/isoDate.ts';
import { readAmount } from '../../../core/numbers/amount.ts';
import { FIELDS, type Field, type Sureness } from '../../../core/evidence/reading/reading.types.ts';
import type { Confirmation } from '../../../contract/gather.ts';
import type { GatheredReceipt } from '../../api/gather.ts';
import { readTypedAmount } from '../../parts/typed.ts';

/** The fields of a receipt as they are typed. */
export type Typed = Record<Field, string>;

/** What stands in the form at first: what was confirmed, else what was read. */
export function typedOf({ confirmed, reading }: GatheredReceipt): Typed {
  const from = (field: Field): string => (confirmed ? (confirmed[field] ?? '') : (reading?.[field]?.value ?? ''));
  return Object.fromEntries(FIELDS.map((field) => [field, from(field)])) as Typed;
}

/** How sure the value is that stands in a field: of the person when it was confirmed or changed, else of the reader. */
export function surenessOf(receipt: GatheredReceipt, field: Field, typed: Typed): Sureness | 'by you' | 'not found' {
  const found = receipt.reading?.[field];
  if (receipt.confirmed || (found && found.value !== typed[field]) || (!found && typed[field] !== '')) return 'by you';
  return found?.sure ?? 'not found';
}

/** What is wrong with a field, in words that say what to do; null when nothing is. */
export function faultOf(field: Field, typed: Typed): string | null {
  const value = typed[field].trim();
  switch (field) {
    case 'amount':
      if (value === '') return 'Enter the total of the receipt.';
      return amountOf(typed) === null ? 'Enter an amount such as 12.50, with the decimals of its currency.' : null;
    case 'currency':
      return minorUnits(value.toUpperCase()) === null ? 'Enter a currency code such as EUR.' : null;
    case 'date':
      return isIsoDate(value) ? null : 'Enter the date of the purchase.';
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

function amountOf(typed: Typed): string | null {
  const currency = typed.currency.trim().toUpperCase();
  const amount = readTypedAmount(typed.amount, currency);
  return amount !== null && readAmount(amount, currency) !== null ? amount : null;
}

/** The fields as they are sent, or null while something is wrong. Taxes stay as they were read. */
export function confirmationOf(receipt: GatheredReceipt, typed: Typed): Confirmation | null {
  if (FIELDS.some((field) => faultOf(field, typed) !== null)) return null;
  const taxes =
    receipt.confirmed?.taxes ?? receipt.reading?.taxes.map(({ rate, base, tax }) => ({ rate, base, tax })) ?? [];
  return {
    revision: receipt.revision,
    amount: amountOf(typed)!,
    currency: typed.currency.trim().toUpperCase(),
    date: typed.date,
    merchant: typed.merchant.trim(),
    taxNumber: typed.taxNumber.trim() || null,
    cardDigits: typed.cardDigits.trim() || null,
    taxes,
  };
}

/** Everything a line needs was confirmed, or read with certainty. */
export const isReady = ({ confirmed, reading }: GatheredReceipt): boolean =>
  confirmed !== null
  || (['amount', 'currency', 'date', 'merchant'] as const).every((f) => reading?.[f]?.sure === 'sure');

/** By what a receipt is called: who sold, where that is known well enough, else the name of its file. */
export function titleOf({ confirmed, reading, name }: GatheredReceipt): string {
  const read = reading?.merchant;
  return confirmed?.merchant ?? (read && read.sure !== 'doubtful' ? read.value : name);
}
