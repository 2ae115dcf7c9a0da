import { addDays, isIsoDate } from '../../../numbers/isoDate.ts';
import type { Found, Sureness } from '../reading.types.ts';
import { confidenceAt, plain, spotAt, type TextLine } from './lines.ts';
import { zeroed } from './zeroed.ts';
import { monthOf } from '../../../numbers/monthOf.ts';
import { DATE_LABEL, OTHER_DATE } from './vocabulary.ts';

interface Candidate {
  value: string;
  /** The other reading of an ambiguous order of day and month. */
  other: string | null;
  line: number;
  start: number;
  end: number;
  score: number;
}
export interface DateContext {
  /** Today by the caller's clock, ISO 8601: a receipt is not from the future. */
  asOf: string;
  /** The document's currency, which tells the order of day and month where both are possible. */
  currency: string | null;
}

const OLDEST_DAYS = 800;

/** The day of the purchase: the date that is labelled so, or the first one; delivery, due and travel dates step back. */
export function findDate(lines: readonly TextLine[], context: DateContext): Found | null {
  const candidates = lines
    .flatMap((line, i) => datesIn(line, i, context))
    .sort((a, b) => b.score - a.score || a.line - b.line);
  const best = candidates[0];
  if (!best) return null;
  const line = lines[best.line]!;
  const rival = candidates.find((c) => c.value !== best.value && best.score - c.score < 3);
  const confidence = confidenceAt(line, best.start, best.end);
  return {
    value: best.value,
    sure: surenessOf(best, rival !== undefined, confidence),
    spot: spotAt(line, best.start, best.end),
    because: best.other ? `day before month; it could also be ${best.other}` : 'it is written so',
  };
}

function surenessOf(best: Candidate, contested: boolean, confidence: number): Sureness {
  if (best.score < 0 || confidence < 40) return 'doubtful';
  if (best.other || contested || confidence < 85) return 'likely';
  return 'sure';
}

const NUMERIC = /(?<![\d.,/-])(\d{1,4}) ?([./\- ]) ?(\d{1,2}) ?\2 ?(\d{2,4})(?![\d/])/gu;
const DAY_FIRST =
  /(?<![\d.,])(\d{1,2})(?:st|nd|rd|th|er|º)?[. \-/]*(?:de |of )?([\p{L}]{3,10})\.?[,. \-/]*(?:de |del )?(\d{4}|['’]?\d{2})(?!\d)/gu;
const MONTH_FIRST = /(?<!\p{L})([\p{L}]{3,10})\.? +(\d{1,2})(?:st|nd|rd|th)?,? +(\d{4})(?!\d)/gu;
const EAST = /(\d{4}) ?年 ?(\d{1,2}) ?月 ?(\d{1,2}) ?日/gu;

function datesIn(line: TextLine, index: number, context: DateContext): Candidate[] {
  const text = plain(line.text);
  const source = text.length === line.text.length ? text : line.text.toLowerCase();
  const found: Candidate[] = [];
  const add = (match: RegExpMatchArray, value: string | null, other: string | null = null) => {
    if (value === null) return;
    const start = match.index!;
    const end = start + match[0].length;
    if (found.some((f) => f.start < end && start < f.end)) return;
    const score = scoreOf(value, text, line.text, start, context);
    found.push({ value, other, line: index, start, end, score });
  };
  for (const m of source.matchAll(EAST)) add(m, iso(m[1]!, m[2]!, m[3]!));
  for (const m of source.matchAll(DAY_FIRST)) add(m, ...namedOrRepaired(m, m[3]!, m[2]!, m[1]!, context));
  for (const m of source.matchAll(MONTH_FIRST)) add(m, ...namedOrRepaired(m, m[3]!, m[1]!, m[2]!, context));
  for (const m of source.matchAll(NUMERIC)) {
    const [value, other] = numeric(m[1]!, m[2]!, m[3]!, m[4]!, context);
    if (value !== null && value <= context.asOf) add(m, value, other);
    else add(m, ...(repaired(m, context) ?? [value, other]));
  }
  return found;
}

function scoreOf(value: string, text: string, original: string, start: number, { asOf }: DateContext): number {
  let score = 5;
  const before = text.slice(0, start);
  if (DATE_LABEL.test(before)) score += 3;
  if (OTHER_DATE.test(before)) score -= 6;
  if (/\d{1,2}[:.h]\d{2}/.test(original.slice(start + 8))) score += 2;
  if (value > asOf) score -= 8;
  if (value < addDays(asOf, -OLDEST_DAYS)) score -= 6;
  return score;
}

const named = (year: string, month: string, day: string): string | null => {
  const number = monthOf(plain(month));
  return number === null ? null : iso(year, String(number), day);
};

function namedOrRepaired(
  m: RegExpMatchArray,
  year: string,
  month: string,
  day: string,
  context: DateContext,
): [string | null, string | null] {
  const value = named(year, month, day);
  if (value !== null && value <= context.asOf) return [value, null];
  const tries = zeroed(year).flatMap((y) => zeroed(day).map((d) => named(y, month, d)));
  const best = latestPlausible(tries, context);
  return best ? [best, m[0].trim()] : [value, null];
}

/** A date that exists, or null. Two-digit years are of this century. */
function iso(year: string, month: string, day: string): string | null {
  const digits = year.replace(/\D/g, '');
  const full = digits.length === 2 ? `20${digits}` : digits;
  const text = `${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  return full.length === 4 && isIsoDate(text) ? text : null;
}

/** Zeros struck through or dotted are taken for 8 or 6: tried where the date as read cannot be. */
function repaired(m: RegExpMatchArray, context: DateContext): [string, string] | null {
  const parts = [m[1]!, m[3]!, m[4]!];
  const tries = parts.reduce<string[][]>(
    (heads, part) => heads.flatMap((head) => zeroed(part).map((p) => [...head, p])),
    [[]],
  );
  const best = latestPlausible(
    tries.map(([a, b, c]) => numeric(a!, m[2]!, b!, c!, context)[0]),
    context,
  );
  return best ? [best, m[0].trim()] : null;
}

const latestPlausible = (dates: readonly (string | null)[], { asOf }: DateContext): string | undefined =>
  dates
    .filter((d): d is string => d !== null && d <= asOf && d >= addDays(asOf, -OLDEST_DAYS))
    .sort()
    .at(-1);

/** Day, month and year from three numbers; the second value is the other possible reading. */
function numeric(a: string, mark: string, b: string, c: string, context: DateContext): [string | null, string | null] {
  if (a.length === 4) return [iso(a, b, c), null];
  if (a.length === 3 || c.length === 3) return [null, null];
  if (mark === ' ' && c.length !== 4) return [null, null];
  const dayFirst = iso(c, b, a);
  const monthFirst = iso(c, a, b);
  if (!dayFirst || !monthFirst || dayFirst === monthFirst) return [dayFirst ?? monthFirst, null];
  const { currency, asOf } = context;
  if (mark === '.') return [dayFirst, null];
  if (currency === 'USD') return monthFirst <= asOf || dayFirst > asOf ? [monthFirst, dayFirst] : [dayFirst, null];
  if (dayFirst > asOf && monthFirst <= asOf) return [monthFirst, dayFirst];
  if (monthFirst > asOf || (currency !== null && currency !== 'CAD')) return [dayFirst, null];
  return [dayFirst, monthFirst];
}
