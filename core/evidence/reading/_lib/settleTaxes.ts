import type { Spot, Sureness } from '../reading.types.ts';
import { isTaxOf, isTaxOn } from './taxOf.ts';

/** A tax as one line of a document states it, in minor units. */
export interface TaxLine {
  /** In percent; null when the document does not tell it. */
  rate: string | null;
  base: bigint | null;
  tax: bigint;
  /** Its rate leads to it from a base, or from the total. */
  computed: boolean;
  confidence: number;
  spot: Spot;
}
export interface SettledTax extends TaxLine {
  sure: Sureness;
}

const LEGIBLE = 65;
const MOST_TRIED = 10;

/**
 * Which of the lines are the taxes of the bill, and how sure: sure where bases, taxes and the rest (tips, roundings) come
 * to the total, at one tax a rate; likely where a rate leads to each; else doubtful. Items that state their own tax fall
 * away beside the lines that come to the total. Example: 100.00 + 7.00 and 100.00 + 19.00 of 226.00 → both sure; of
 * 230.00 → likely.
 */
export function settleTaxes(found: readonly TaxLine[], total: bigint | null, extras: readonly bigint[]): SettledTax[] {
  if (total === null) return ofEachRate(found).map((line) => graded(line, 'likely'));
  const whole = wholeSet(found, total, extras);
  if (whole) return whole.map((line) => graded(line, 'sure'));
  const lines = summed(found, total) ?? ofEachRate(found);
  const [only] = lines;
  if (lines.length === 1 && only!.rate !== null && isTaxOf(only!.tax, total, only!.rate) && only!.base === null)
    return [graded(only!, only!.computed ? 'sure' : 'likely')];
  const net = total - lines.reduce((a, line) => a + line.tax, 0n);
  if (lines.length > 0 && lines.every(({ rate, tax }) => rate !== null && isTaxOn(tax, net, rate)))
    return lines.map((line) => graded({ ...line, computed: true }, 'sure'));
  return lines.map((line) => graded(line, 'likely'));
}

function graded(line: TaxLine, most: Sureness): SettledTax {
  if (!line.computed) return { ...line, sure: 'doubtful' };
  return { ...line, sure: line.confidence >= LEGIBLE && line.rate !== null ? most : 'likely' };
}

/** The most lines, one a rate, whose bases and taxes are the total, or with one of the extras; the last ones first. */
function wholeSet(found: readonly TaxLine[], total: bigint, extras: readonly bigint[]): TaxLine[] | null {
  const lines = found.filter((line) => line.base !== null).slice(-MOST_TRIED);
  const rests = new Set([0n, ...extras, extras.reduce((a, e) => a + e, 0n)]);
  let best: TaxLine[] | null = null;
  for (let choice = (1 << lines.length) - 1; choice > 0; choice -= 1) {
    const chosen = lines.filter((_, i) => choice & (1 << i));
    if (best && chosen.length <= best.length) continue;
    if (new Set(chosen.map((line) => Number(line.rate))).size < chosen.length) continue;
    if (rests.has(total - chosen.reduce((a, line) => a + line.base! + line.tax, 0n))) best = chosen;
  }
  return best;
}

/**
 * Rows that state the tax of an item each, as a folio's nights do, taken together where their taxes come to those within the
 * total, or their bases and taxes to the total. Example: four nights of 96.00 with 11.42 each, of 384.00 → 45.68.
 */
function summed(found: readonly TaxLine[], total: bigint): TaxLine[] | null {
  const rates = [...new Set(found.map((line) => line.rate))];
  if (rates.includes(null) || rates.length === found.length) return null;
  const lines = rates.map((rate) => {
    const rows = found.filter((line) => line.rate === rate);
    const bases = rows.map((line) => line.base);
    return {
      ...rows.at(-1)!,
      base: bases.includes(null) ? null : bases.reduce<bigint>((a, base) => a + base!, 0n),
      tax: rows.reduce((a, line) => a + line.tax, 0n),
      confidence: Math.min(...rows.map((line) => line.confidence)),
      rows: BigInt(rows.length),
    };
  });
  const gross = lines.reduce<bigint | null>(
    (a, { base, tax }) => (a === null || base === null ? null : a + base + tax),
    0n,
  );
  const [only] = lines;
  // each row is rounded by itself, so the sum may be a minor unit off for every one
  const isWithin = lines.length === 1 && isAbout(only!.tax, total, only!.rate!, only!.rows);
  return gross === total || isWithin ? lines.map(({ rows: _, ...line }) => line) : null;
}

const isAbout = (tax: bigint, total: bigint, rate: string, most: bigint): boolean =>
  Array.from({ length: Number(2n * most + 1n) }, (_, i) => tax - most + BigInt(i)).some((t) => isTaxOf(t, total, rate));

/** At most one line a rate: the one with the largest tax, since a bill's tax is no less than an item's. */
function ofEachRate(found: readonly TaxLine[]): TaxLine[] {
  return found.filter((line, i) => {
    const others = found.filter((other) => Number(other.rate) === Number(line.rate));
    const largest = others.reduce((a, b) => (b.tax > a.tax ? b : a));
    return found.indexOf(largest) === i && Number(line.rate ?? 1) !== 0;
  });
}
