import { addDays, isIsoDate } from '../../../numbers/isoDate.ts';
import type { Found, Sureness } from '../reading.types.ts';
import { confidenceAt, plain, spotAt, type TextLine } from './lines.ts';
import { zeroed } from './zeroed.ts';
import { monthOf } from '../../../numbers/monthOf.ts';
import { BOOKED, DATE_LABEL, DEPARTURE, LODGING, OTHER_DATE, PAYMENT_DATE } from './dateWords.ts';

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

/** What surrounds a date. */
interface Page extends DateContext {
  lines: readonly TextLine[];
  /** The bill of a place to sleep, which is written on the day of departure. */
  lodging: boolean;
}

const OLDEST_DAYS = 800;
/** A word below this confidence may have a zero taken for another digit; text of a file has 100. */
const EXACT = 100;

/** The day of the purchase: the date that is labelled so, or the first one; delivery, due and travel dates step back. */
export function findDate(lines: readonly TextLine[], context: DateContext): Found | null {
  const page: Page = { lines, lodging: lines.some((line) => LODGING.test(plain(line.text))), ...context };
  const candidates = lines
    .flatMap((line, i) => datesIn(line, i, page))
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
    because: best.other ? `${orderOf(best, line)}; it could also be ${best.other}` : 'it is written so',
  };
}

/** Which of day and month was taken to stand first, or that zeros were put right. */
function orderOf({ value, start, end }: Candidate, { text }: TextLine): string {
  const first = Number(/\d+/.exec(text.slice(start, end))?.[0]);
  if (first === Number(value.slice(8))) return 'day before month';
  return first === Number(value.slice(5, 7)) ? 'month before day' : 'zeros may have been taken for other digits';
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

function datesIn(line: TextLine, index: number, context: Page): Candidate[] {
  const text = plain(line.text);
  const source = text.length === line.text.length ? text : line.text.toLowerCase();
  const found: Candidate[] = [];
  const add = (match: RegExpMatchArray, value: string | null, other: string | null = null) => {
    if (value === null) return;
    const start = match.index!;
    const end = start + match[0].length;
    if (found.some((f) => f.start < end && start < f.end)) return;
    const score = scoreOf(value, line, index, start, end, context);
    found.push({ value, other, line: index, start, end, score });
  };
  for (const m of source.matchAll(EAST)) add(m, iso(m[1]!, m[2]!, m[3]!));
  for (const m of source.matchAll(DAY_FIRST)) add(m, ...namedOrRepaired(m, m[3]!, m[2]!, m[1]!, context));
  for (const m of source.matchAll(MONTH_FIRST)) add(m, ...namedOrRepaired(m, m[3]!, m[1]!, m[2]!, context));
  for (const m of source.matchAll(NUMERIC)) {
    const [value, other] = numeric(m[1]!, m[2]!, m[3]!, m[4]!, context);
    const guessed = confidenceAt(line, m.index, m.index + m[0].length) < EXACT;
    const kept = value !== null && value <= context.asOf && !(guessed && isTurned(m, value, context));
    if (kept) add(m, value, other);
    else add(m, ...(repaired(m, context) ?? [value, other]));
  }
  return found;
}

function scoreOf(value: string, line: TextLine, index: number, start: number, end: number, page: Page): number {
  const { asOf, lines } = page;
  let score = 5 + labelScore(labelOf(line, lines[index - 1], start, end), page);
  if (isItemOf(page, line, start, end)) score -= 5;
  if (TIME.test(line.text.slice(end))) score += 2;
  if (value > asOf) score -= 8;
  if (value < addDays(asOf, -OLDEST_DAYS)) score -= 6;
  return score;
}

/** A time of day after a date; with a point only right after it, since "96.00" and "12.50" further on are amounts. */
const TIME =
  /(?<!\d)(?:[01]?\d|2[0-3])[:h][0-5]\d(?!\d)|^\D{0,6}(?:[01]?\d|2[0-3])\.[0-5]\d(?![\d.,])(?! ?(?:\p{Sc}|\p{Lu}{3}|kr))/u;

function labelScore(label: string, { lodging }: Page): number {
  if (PAYMENT_DATE.test(label)) return 6;
  if (lodging && DEPARTURE.test(label)) return -1;
  if (OTHER_DATE.test(label) || DEPARTURE.test(label)) return -6;
  if (BOOKED.test(label)) return -2;
  return DATE_LABEL.test(label) ? 3 : 0;
}

/** The words that speak of a date: those before it on its line, after the date before it; else those right above it. */
function labelOf(line: TextLine, above: TextLine | undefined, start: number, end: number): string {
  const before = line.text.slice(0, start).replace(/^.*\d{1,4}[./-]\d{1,2}[./-]\d{2,4}/, '');
  if (/\p{L}{2}/u.test(before) || above?.page !== line.page) return plain(before);
  const { box } = spotAt(line, start, end);
  const over = above.words.filter((w) => w.box.x < box.x + box.width && box.x < w.box.x + w.box.width);
  return plain(over.map((w) => w.text).join(' '));
}

/** Whether a date of a hotel's bill begins a row with an amount at its end: a night, not the bill. */
const isItemOf = ({ lodging }: Page, line: TextLine, start: number, end: number): boolean =>
  lodging && start <= 2 && /\p{L}{3}/u.test(line.text.slice(end)) && /\d[.,]\d{2}\D{0,6}$/.test(line.text);

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

/** Whether day and month stand the other way round than the currency's country writes them, because only so they are a date. */
function isTurned(m: RegExpMatchArray, value: string, { currency }: DateContext): boolean {
  const [first, , second, year] = m.slice(1) as [string, string, string, string];
  if (first.length === 4 || currency === null || currency === 'CAD') return false;
  const [day, month] = currency === 'USD' ? [second, first] : [first, second];
  return iso(year, month, day) !== value;
}

/** Zeros struck through or dotted are taken for 8 or 6: tried where the date as read cannot be. */
function repaired(m: RegExpMatchArray, context: DateContext): [string, string] | null {
  const parts = [m[1]!, m[3]!, m[4]!];
  const tries = parts.reduce<string[][]>(
    (heads, part) => heads.flatMap((head) => zeroed(part).map((p) => [...head, p])),
    [[]],
  );
  const best = latestPlausible(
    tries.flatMap(([a, b, c]) => {
      const [value] = numeric(a!, m[2]!, b!, c!, context);
      return value !== null && !isTurned([m[0], a!, m[2]!, b!, c!], value, context) ? [value] : [];
    }),
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
