import type { FoundTax } from '../reading.types.ts';
import { plain, type TextLine } from './lines.ts';
import type { Money } from './money.ts';
import { settleTaxes, type TaxLine } from './settleTaxes.ts';
import { BARE_RATE, isRoundedTaxOf, isTaxOf, isTaxOn, RATE, rateIn } from './taxOf.ts';
import { EXTRA, TAX, TAX_NUMBER_LABEL } from './vocabulary.ts';
import { zeroed } from './zeroed.ts';

/**
 * Taxes by rate, in the order of the document: from a line with a percentage, from a row of a table of rates, or, where no
 * line names a rate, from an amount beside the word for a tax. What they come to together says how sure they are.
 */
export function findTaxes(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  total: bigint | null,
  write: (minor: bigint) => string,
): FoundTax[] {
  const rated = lines.flatMap((line, i) => {
    const rates = [...line.text.matchAll(RATE)];
    if (rates.length > 1) return [];
    if (!rates[0]) return tableRow(lines, amounts, i) ?? [];
    const before = /(?<![\d.,])(\d{1,2}) $/.exec(line.text.slice(0, rates[0].index))?.[1];
    return ratedLine(lines, amounts, i, [rates[0][1]!, ...(before ? [before] : [])], total) ?? [];
  });
  const found = rated.length > 0 ? rated : lines.flatMap((_, i) => unratedLine(lines, amounts, i, total) ?? []);
  const extras = amounts.filter((a) => a.exact && EXTRA.test(plain(lines[a.line]!.text))).map((a) => a.minor);
  return settleTaxes(found, total, extras).map(({ rate, base, tax, sure, spot }) => ({
    rate,
    base: base === null ? null : write(base),
    tax: write(tax),
    sure,
    spot,
  }));
}

/** The tax of a line that names a rate. */
function ratedLine(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  i: number,
  printed: readonly string[],
  total: bigint | null,
): TaxLine | null {
  const numbers = amountsFor(lines, amounts, i);
  const { rate, pair } = rateOf(printed, numbers, total);
  const named = TAX.test(plain(lines[i]!.text));
  const money = pair?.tax ?? (named ? taxAlone(numbers, rate, total) : null);
  if (!money) return Number(rate) === 0 ? untaxed(numbers) : null;
  return lineOf(rate, pair?.base ?? null, money, pair !== null || isTaxOf(money.minor, total, rate));
}

const lineOf = (rate: string | null, base: bigint | null, money: Money, computed: boolean): TaxLine => ({
  rate,
  base,
  tax: money.minor,
  computed,
  confidence: money.confidence,
  spot: money.spot,
});

/** A row of a table that is taxed at nothing: its base, and a tax of zero. */
function untaxed(numbers: readonly Money[]): TaxLine | null {
  const zero = numbers.find((n) => n.minor === 0n);
  const base = numbers.find((n) => n.minor > 0n);
  return zero && base ? lineOf('0', base.minor, zero, true) : null;
}

/** The amounts of a line, or of the one below where it has only labels, as forms have. */
function amountsFor(lines: readonly TextLine[], amounts: readonly Money[], i: number): Money[] {
  const at = (line: number) => amounts.filter((a) => a.line === line && a.exact);
  const own = at(i);
  return own.length > 0 || lines[i + 1]?.page !== lines[i]!.page ? own : at(i + 1);
}

const HEADING_ABOVE = 4;

/**
 * A row of a table with rates in a column of their own: under a heading that names a tax, a number that is the rate
 * between two amounts of its row.
 */
function tableRow(lines: readonly TextLine[], amounts: readonly Money[], i: number): TaxLine | null {
  const headed = lines
    .slice(Math.max(0, i - HEADING_ABOVE), i)
    .some((l) => l.text.includes('%') || TAX.test(plain(l.text)));
  const numbers = amounts.filter((a) => a.line === i && a.exact);
  if (!headed || numbers.length < 2) return null;
  for (const [, printed] of lines[i]!.text.matchAll(BARE_RATE)) {
    const rate = rateIn(printed!);
    const pair = pairOf(numbers, rate);
    if (pair) return lineOf(rate, pair.base, pair.tax, true);
  }
  return netTaxGross(numbers);
}

/** A row whose rate is not legible: net, tax and gross that add up, where just one of the usual rates leads to the tax. */
function netTaxGross(numbers: readonly Money[]): TaxLine | null {
  for (const tax of numbers)
    for (const net of numbers) {
      if (tax.minor <= 0n || net.minor <= tax.minor) continue;
      if (!numbers.some((gross) => gross.minor === net.minor + tax.minor)) continue;
      const rates = USUAL_RATES.filter((rate) => isTaxOn(tax.minor, net.minor, rate));
      if (rates.length === 1) return lineOf(rates[0]!, net.minor, tax, true);
    }
  return null;
}

/** Rates of countries of western and northern Europe, from memory: which one a tax was computed with, where just one fits. */
const USUAL_RATES = '4 5 5.5 6 7 8 8.1 9 10 12 13 13.5 14 15 16 17 18 19 20 21 22 23 24 25 25.5 27'.split(' ');

/** An amount beside the word for a tax that tells no rate. */
function unratedLine(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  i: number,
  total: bigint | null,
): TaxLine | null {
  const text = plain(lines[i]!.text);
  if (!TAX.test(text) || isTaxNumber(text)) return null;
  const money = amounts.filter((a) => a.line === i && a.exact && a.minor > 0n).at(-1);
  if (!money || (total !== null && money.minor * 2n >= total)) return null;
  const fitting = USUAL_RATES.filter((rate) => isRoundedTaxOf(money.minor, total, rate));
  return lineOf(fitting.length === 1 ? fitting[0]! : null, null, money, fitting.length === 1);
}

const TAX_NUMBER = new RegExp(`(?<![a-z])${TAX_NUMBER_LABEL.source}[a-z]{0,3} ?\\d{5}`, 'u');
const isTaxNumber = (text: string): boolean => TAX_NUMBER.test(text);

/**
 * The rate as printed, with misread zeros put right, or the number right before it (a sign that was taken for a digit),
 * where only so the figures of the line agree with it.
 */
function rateOf(printed: readonly string[], numbers: readonly Money[], total: bigint | null) {
  const rates = printed.flatMap((one) => zeroed(rateIn(one)));
  const agreeing = rates.find((r) => pairOf(numbers, r) || numbers.some((a) => isTaxOf(a.minor, total, r)));
  const rate = agreeing ?? rates[0]!;
  return { rate, pair: pairOf(numbers, rate) };
}

/** The tax and its base among the amounts of a line, by computing: tax of a net, or tax within a gross. */
function pairOf(numbers: readonly Money[], rate: string): { tax: Money; base: bigint } | null {
  for (const tax of numbers)
    for (const other of numbers) {
      if (tax === other || tax.minor <= 0n || other.minor <= tax.minor) continue;
      if (isTaxOn(tax.minor, other.minor, rate)) return { tax, base: other.minor };
      if (isTaxOf(tax.minor, other.minor, rate)) return { tax, base: other.minor - tax.minor };
    }
  return null;
}

function taxAlone(numbers: readonly Money[], rate: string, total: bigint | null): Money | null {
  const fitting = numbers.find((a) => isTaxOf(a.minor, total, rate));
  if (fitting) return fitting;
  const only = numbers.length === 1 ? numbers[0]! : null;
  return only && only.minor > 0n && (total === null || only.minor * 2n < total) ? only : null;
}
