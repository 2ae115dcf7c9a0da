import { addYears, differenceInDays, format, isValid, parse } from 'date-fns';

/** Whether the day comes before the month where both are numbers, as people write where the reader's language is spoken. */
export function isDayFirst(language: string): boolean {
  const parts = new Intl.DateTimeFormat(language, { day: 'numeric', month: 'numeric' }).formatToParts(0);
  return parts.find(({ type }) => type === 'day' || type === 'month')?.type === 'day';
}

const NUMBERS = { dayFirst: ['d M', 'M d'], monthFirst: ['M d', 'd M'] };
const WORDS = ['d MMM', 'd MMMM', 'MMM d', 'MMMM d'];
/** Every order a day is taken in, the likelier first; what stands between its parts does not count. */
const orders = (dayFirst: boolean): string[] => {
  const numbers = NUMBERS[dayFirst ? 'dayFirst' : 'monthFirst'];
  const parts = [...numbers, ...WORDS];
  // eight digits with their year at the end are no month where they are read with it at the beginning
  const together = numbers.map((order) => `${order.replace('d', 'dd').replace('M', 'MM').replace(' ', '')}yyyy`);
  return ['yyyyMMdd', ...together, 'yyyy M d', ...parts.flatMap((part) => [`${part} yyyy`, `${part} yy`, part])];
};
/** A day without a year is the one nearest to today, and at most so many days ahead. */
const MOST_AHEAD = 90;

/**
 * A day as somebody types it, as ISO 8601; null where it is none. Four digits are a year, and a number above 12 is no month.
 * "26/11/2026", "26 Nov", "Nov 26, 2026", "26.11.26", "20261126", "26112026" → "2026-11-26" (in 2026).
 */
export function readDay(typed: string, today: Date, dayFirst: boolean): string | null {
  const text = typed
    .trim()
    .toLowerCase()
    .replace(/(\d)(?:st|nd|rd|th)\b/g, '$1')
    .replace(/[\s./,-]+/g, ' ')
    .trim();
  const order = orders(dayFirst).find((one) => fits(one, text) && isValid(parse(text, one, today)));
  if (order === undefined) return null;
  const day = parse(text, order, today);
  const isAhead = !order.includes('y') && differenceInDays(day, today) > MOST_AHEAD;
  return format(isAhead ? addYears(day, -1) : day, 'yyyy-MM-dd');
}

/** As many parts as the order has, a year of four digits where it has one, of two where it has that. */
function fits(order: string, text: string): boolean {
  const [parts, words] = [order.split(' '), text.split(' ')];
  const isYear = (part: string, word: string) => !part.includes('yy') || word.length === part.length;
  return parts.length === words.length && parts.every((part, i) => isYear(part, words[i]!));
}

/** Why a day cannot be taken, or null: it is none, or not within what may be chosen. An empty one is no fault here. */
export function problemOfDay(
  day: string | null,
  { min = '', max = '' }: { min?: string; max?: string },
): string | null {
  if (day === null) return 'This is no day. Write one such as 2026-11-26 or 26 Nov.';
  if (day !== '' && min !== '' && day < min) return `Not before ${min}.`;
  return day !== '' && max !== '' && day > max ? `Not after ${max}.` : null;
}
