import { minorUnits } from '../../numbers/minorUnits.ts';
import { fromMinor } from '../../numbers/amount.ts';
import { findBought } from './_lib/findBought.ts';
import { findPaid } from './_lib/findPaid.ts';
import { findCurrency } from './_lib/findCurrency.ts';
import { tellCurrency } from './_lib/tellCurrency.ts';
import { findDate } from './_lib/findDate.ts';
import { findCardDigits } from './_lib/findCard.ts';
import { findTaxNumber } from './_lib/findTaxNumber.ts';
import { findMerchant } from './_lib/findMerchant.ts';
import { findTaxes } from './_lib/findTaxes.ts';
import { findTotal } from './_lib/findTotal.ts';
import { toLines } from './_lib/lines.ts';
import { amountsOf, decimalMark } from './_lib/money.ts';
import type { Reading, Word } from './reading.types.ts';

const USUAL_DECIMALS = 2;

/**
 * Reads a receipt or invoice from its words and where they stand. Proposes; a person confirms. Pure: the same words on
 * the same day give the same reading.  @param words every word of the document, in any order @param asOf today, ISO
 * 8601; dates after it are not taken for the day of the purchase @returns amounts as decimal strings with the decimals
 * of the currency found (two when none was found) Example: "TOTAL EUR 20.00" → amount 20.00, sure when the lines above
 * add up to it.
 */
export function readDocument(words: readonly Word[], asOf: string): Reading {
  const lines = toLines(words);
  const currency = tellCurrency(findCurrency(lines), lines);
  const decimals = currency ? minorUnits(currency.value)! : USUAL_DECIMALS;
  const write = (minor: bigint) => fromMinor(minor, currency?.value ?? 'EUR');
  const amounts = amountsOf(lines, decimalMark(lines), decimals);
  const total = findTotal(lines, amounts, write);
  const cardDigits = findCardDigits(lines, total?.minor ?? null);
  return {
    amount: total && { value: total.value, sure: total.sure, spot: total.spot, because: total.because },
    currency,
    date: findDate(lines, { asOf, currency: currency?.value ?? null }),
    merchant: findMerchant(lines, amounts),
    taxes: findTaxes(lines, amounts, total?.minor ?? null, write),
    taxNumber: findTaxNumber(lines),
    cardDigits,
    bought: findBought(lines, amounts, total, write),
    paid: findPaid(lines, amounts, total?.minor ?? null, cardDigits),
  };
}
