import type { TaxCode, TaxEntry } from '../../documents/case.schema.ts';
import { readAmount, magnitude, fromMinor } from '../../numbers/amount.ts';
import { holdsOn } from '../../numbers/isoDate.ts';

/** A tax as a receipt shows it. */
export interface ShownTax {
  /** In percent; null when the receipt does not tell it, and then no code of the book can be it. */
  rate: string | null;
  base?: string | null | undefined;
  tax?: string | null | undefined;
}

/**
 * Tax entries for a line from the taxes its receipt shows: the code of that country and rate that holds on the day. A
 * tax for which the book has no code is left out, and so are all when they do not fit into the amount; then the line has
 * none and its tax comparison says so. Example: 23 %, base 81.30, tax 18.70 on an Irish line of 100.00 → code IE-23,
 * gross 100.00, tax 18.70.
 */
export function proposeTaxes(
  shown: readonly ShownTax[],
  codes: readonly TaxCode[],
  line: { amount: string; currency: string; country: string | null; date: string },
): TaxEntry[] {
  const { amount, currency, country, date } = line;
  if (!country) return [];
  const entries = shown.flatMap(({ rate, base, tax }) => {
    const code = codes.find(
      (c) =>
        c.country === country
        && !c.selfAssessed
        && holdsOn(c, date)
        && c.rate != null
        && rate !== null
        && Number(c.rate) === Number(rate),
    );
    const minorTax = tax == null ? null : readAmount(tax, currency);
    if (!code || minorTax === null) return [];
    const minorBase = base == null ? null : readAmount(base, currency);
    return [
      {
        code: code.code,
        tax: fromMinor(minorTax, currency),
        gross: minorBase === null ? null : fromMinor(minorBase + minorTax, currency),
      },
    ];
  });
  if (entries.length === 1) return fits(entries, amount, currency) ? entries : [{ ...entries[0]!, gross: null }];
  const whole = entries.every((e) => e.gross !== null) && fits(entries, amount, currency);
  return whole ? entries : [];
}

function fits(entries: readonly { gross: string | null }[], amount: string, currency: string): boolean {
  const sum = entries.reduce(
    (a, e) => a + magnitude(readAmount(e.gross ?? fromMinor(0n, currency), currency) ?? 0n),
    0n,
  );
  return sum <= magnitude(readAmount(amount, currency) ?? 0n);
}

/** The country whose two letters a tax number begins with, where it is one of the book's: "IE1234567T" → "IE". */
export function countryOfTaxNumber(taxNumber: string | null, codes: readonly TaxCode[]): string | null {
  const letters = taxNumber?.slice(0, 2).toUpperCase() ?? '';
  return codes.some((c) => c.country === letters) ? letters : null;
}
