import type { TaxCode } from '../../documents/case.schema.ts';
import { fromMinor, readAmount } from '../../numbers/amount.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';
import { componentsOf } from './taxEntry.ts';

/** A tax entry as it is kept: tax included, with the tax itself. */
export interface AddedTax {
  code: string;
  gross: string;
  tax: string | null;
}

/**
 * The tax entry of a price without tax, in the currency of the line: each component is round(net × its factor), half away
 * from zero, and the gross is the net with them. What a buyer owes himself is in no gross. Null where the net is no amount
 * of the currency. Example: 81.31 EUR at 23 % → gross 100.01, tax 18.70; 1000 JPY at 10 % → 1100, 100.
 */
export function addTax(net: string, code: TaxCode, currency: string): AddedTax | null {
  const minor = readAmount(net, currency);
  if (minor === null) return null;
  if (code.selfAssessed) return { code: code.code, gross: fromMinor(minor, currency), tax: null };
  const tax = componentsOf(code).reduce((sum, { factor }) => sum + roundHalfAway(minor * factor.n, factor.d), 0n);
  return { code: code.code, gross: fromMinor(minor + tax, currency), tax: fromMinor(tax, currency) };
}
