import { confidenceAt, spotAt, type TextLine } from './lines.ts';
import type { Spot } from '../reading.types.ts';

/** An amount as it stands in a line: minor units by the decimals of the document's currency. */
export interface Money {
  minor: bigint;
  text: string;
  line: number;
  start: number;
  end: number;
  spot: Spot;
  confidence: number;
  /** It was written with all decimals of the currency, as money is and quantities are not. */
  exact: boolean;
}

/** A number begins after anything but a letter, digit or mark; a currency's code or sign may touch it. */
const BEGINS = String.raw`(?:(?<![\p{L}\d.,])|(?<=(?<!\p{L})(?:[Kk]r|EUR|USD|GBP|JPY|CHF|SEK|NOK|DKK|PLN|CZK|HUF|CAD|AUD|BHD|KES)))`;
const DECIMALS = String.raw`(?: ?[.,] ?\d{1,3})?(?!\d)`;
const NUMBER = new RegExp(
  String.raw`${BEGINS}[-−]?\d{1,3}(?:(?:[ ]?[.,'’]|[ ])\d{3})*${DECIMALS}|${BEGINS}[-−]?\d+${DECIMALS}`,
  'gu',
);

/** The mark before the decimals that a document uses: the one that stands before exactly two last digits more often. */
export function decimalMark(lines: readonly TextLine[]): '.' | ',' {
  let points = 0;
  for (const line of lines)
    for (const [, mark] of line.text.matchAll(/\d ?([.,]) ?\d{2}(?![\d.,/]|\s?%)/g)) points += mark === '.' ? 1 : -1;
  return points >= 0 ? '.' : ',';
}

/** Every amount of the lines. `decimals` are those of the currency; numbers inside dates, times and codes are left out. */
export function amountsOf(lines: readonly TextLine[], mark: '.' | ',', decimals: number): Money[] {
  return lines.flatMap((line, index) => amountsIn(line, index, mark, decimals));
}

function amountsIn(line: TextLine, index: number, mark: '.' | ',', decimals: number): Money[] {
  return [...line.text.matchAll(NUMBER)].flatMap((match) => {
    const [text] = match;
    const start = match.index;
    const end = start + text.length;
    if (
      /^[/:\d%]|^ ?%|^[.,-]\d|^-?\p{L}{2,}\d/u.test(line.text.slice(end))
      || /[/:#]$|\d[-.]$/.test(line.text.slice(0, start))
    )
      return [];
    const minor = toMinor(text, mark, decimals, isTakenOff(line.text, start, end));
    if (minor === null) return [];
    const spot = spotAt(line, start, end);
    const confidence = confidenceAt(line, start, end);
    const exact = decimals === 0 ? true : new RegExp(`[.,] ?\\d{${decimals}}$`).test(text);
    return [{ minor: minor.value, text, line: index, start, end, spot, confidence, exact }];
  });
}

/** A minus that touches the sign or code of the currency before a number, or the number's last digit. */
const isTakenOff = (text: string, start: number, end: number): boolean =>
  /(?:^|[\s(:])[-−](?:\p{Sc}|[Kk]r\.?|[A-Z]{3}) ?$/u.test(text.slice(0, start))
  || /^[-−](?=\s|$)/.test(text.slice(end));

/** Minor units of a written number. A separator is the decimal mark when the digits after it can be decimals. */
function toMinor(text: string, mark: '.' | ',', decimals: number, takenOff: boolean): { value: bigint } | null {
  const negative = takenOff || /^[-−]/.test(text);
  const compact = text.replace(/[-−\s'’]/g, '');
  const last = Math.max(compact.lastIndexOf('.'), compact.lastIndexOf(','));
  const after = last < 0 ? '' : compact.slice(last + 1);
  const isDecimal = last >= 0 && isDecimalPart(compact, last, after, mark, decimals);
  const whole = (isDecimal ? compact.slice(0, last) : compact).replace(/[.,]/g, '');
  const rest = isDecimal ? after : '';
  if (whole.length > 12 || rest.length > decimals) return null;
  const value = BigInt(`${whole}${rest.padEnd(decimals, '0')}`);
  return { value: negative ? -value : value };
}

function isDecimalPart(compact: string, at: number, after: string, mark: '.' | ',', decimals: number): boolean {
  if (decimals === 0) return false;
  if (after.length === decimals)
    return decimals !== 3 || compact[at] === mark || !compact.slice(0, at).includes(compact[at]!);
  return after.length < 3 && compact[at] === mark;
}
