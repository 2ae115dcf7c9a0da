import { minorUnits } from '../../core/numbers/minorUnits.ts';
import { readAmount } from '../../core/numbers/amount.ts';
import { readTypedAmount } from './typed.ts';

export type TypedMoney = { ok: true; amount: string; currency: string } | { ok: false; problem: string };

/**
 * An amount as it is typed, with its currency before or behind it; without one it is in the currency given.
 * ("12,5", "EUR") → 12.50 EUR; ("900 jpy", "EUR") → 900 JPY; ("12 XXY", "EUR") → not ok.
 */
export function readMoney(text: string, currency: string): TypedMoney {
  const words = text.match(/[a-z]+/gi) ?? [];
  const figures = text.replace(/[a-z]+/gi, '').trim();
  if (figures === '' || words.length > 1) return { ok: false, problem: 'Type an amount such as 12.50, or 900 JPY.' };
  const named = (words[0] ?? currency).toUpperCase();
  if (minorUnits(named) === null) return { ok: false, problem: `${named} is not a currency.` };
  const amount = readTypedAmount(figures, named);
  if (amount === null || readAmount(amount, named) === null)
    return { ok: false, problem: `Type an amount of ${named}, with ${minorUnits(named)} decimals.` };
  return { ok: true, amount, currency: named };
}
