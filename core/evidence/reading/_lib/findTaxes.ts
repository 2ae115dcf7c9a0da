import type { FoundTax, Sureness } from '../reading.types.ts';
import { plain, type TextLine } from './lines.ts';
import type { Money } from './money.ts';
import { BARE_RATE, isTaxOf, isTaxOn, RATE, rateIn } from './taxOf.ts';
import { TAX } from './vocabulary.ts';
import { zeroed } from './zeroed.ts';

/**
 * Taxes by rate. A line with a percentage and two amounts of which one is the tax of the other is sure; a single amount
 * is taken for the tax where it is the tax that the total would hold.
 */
export function findTaxes(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  total: bigint | null,
  write: (minor: bigint) => string,
): FoundTax[] {
  const found = lines.flatMap((line, i) => {
    const rates = [...line.text.matchAll(RATE)];
    if (rates.length > 1) return [];
    const tax = rates[0]
      ? ratedLine(lines, amounts, i, rates[0][1]!, total, write)
      : tableRow(lines, amounts, i, write);
    return tax ? [tax] : [];
  });
  return found.filter((tax, i) => found.findIndex((f) => f.rate === tax.rate && f.tax === tax.tax) === i);
}

/** The tax of a line that names a rate. */
function ratedLine(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  i: number,
  printed: string,
  total: bigint | null,
  write: (minor: bigint) => string,
): FoundTax | null {
  const numbers = amountsFor(lines, amounts, i);
  const { rate, pair } = rateOf(printed, numbers, total);
  const named = TAX.test(plain(lines[i]!.text));
  const money = pair?.tax ?? (named ? taxAlone(numbers, rate, total) : null);
  if (!money) return null;
  return {
    rate,
    base: pair ? write(pair.base) : null,
    tax: write(money.minor),
    sure: surenessOf(money, pair !== null || isTaxOf(money.minor, total, rate)),
    spot: money.spot,
  };
}

/** The amounts of a line, or of the one below where it has only labels, as forms have. */
function amountsFor(lines: readonly TextLine[], amounts: readonly Money[], i: number): Money[] {
  const at = (line: number) => amounts.filter((a) => a.line === line && a.exact);
  const own = at(i);
  return own.length > 0 || lines[i + 1]?.page !== lines[i]!.page ? own : at(i + 1);
}

/** A tax that its rate does not lead to may be one of several, or a misread rate. */
function surenessOf(money: Money, computed: boolean): Sureness {
  if (!computed) return 'doubtful';
  return money.confidence >= 65 ? 'sure' : 'likely';
}

const HEADING_ABOVE = 4;

/**
 * A row of a table with rates in a column of their own: under a heading that names a tax, a number that is the rate
 * between two amounts of its row.
 */
function tableRow(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  i: number,
  write: (minor: bigint) => string,
): FoundTax | null {
  const headed = lines
    .slice(Math.max(0, i - HEADING_ABOVE), i)
    .some((l) => l.text.includes('%') || TAX.test(plain(l.text)));
  const numbers = amounts.filter((a) => a.line === i && a.exact);
  if (!headed || numbers.length < 2) return null;
  for (const [, printed] of lines[i]!.text.matchAll(BARE_RATE)) {
    const rate = rateIn(printed!);
    const pair = pairOf(numbers, rate);
    if (!pair) continue;
    const { tax, base } = pair;
    return { rate, base: write(base), tax: write(tax.minor), sure: surenessOf(tax, true), spot: tax.spot };
  }
  return null;
}

/** The rate as printed, or with misread zeros put right where only so the figures of the line agree with it. */
function rateOf(printed: string, numbers: readonly Money[], total: bigint | null) {
  const rates = zeroed(rateIn(printed));
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
  return only && (total === null || only.minor * 2n < total) ? only : null;
}
