import { minorUnits } from '../../core/numbers/minorUnits.ts';

/**
 * A number as people type it (spaces as grouping, comma or point before the decimals) as a plain decimal, or null.
 * "1 234,5" → "1234.5"; "−3" → "-3"; "1.234,56" → "1234.56"; "1e9" and "" → null.
 */
export function readTyped(text: string): string | null {
  const plain = text
    .trim()
    .replace(/[\s\u2009\u00a0']/g, '')
    .replace('−', '-');
  const marks = plain.replace(/[^.,]/g, '');
  const last = Math.max(plain.lastIndexOf('.'), plain.lastIndexOf(','));
  const whole = last < 0 ? plain : plain.slice(0, last).replace(/[.,]/g, '');
  const decimals = last < 0 ? '' : plain.slice(last + 1);
  const mixed = marks.includes('.') && marks.includes(',');
  if (marks.length > 1 && !mixed) return null;
  if (!/\d/.test(plain)) return null;
  const number = `${whole.replace(/^(-?)0+(?=\d)/, '$1') || '0'}${decimals ? `.${decimals}` : ''}`;
  return /^-?\d+(\.\d+)?$/.test(number) ? number : null;
}

/** Where a currency has three decimals, a comma before three digits may be a group's or the decimals': it is asked for again. */
const GROUP_OR_DECIMALS = /^[-−]?\d{1,3},\d{3}$/;

/** As `readTyped`, with missing decimals of the currency filled up: ("33,3", "EUR") → "33.30". Too many stay, to be refused. */
export function readTypedAmount(text: string, currency: string): string | null {
  const number = readTyped(text);
  const decimals = minorUnits(currency) ?? 2;
  if (number === null || (decimals === 3 && GROUP_OR_DECIMALS.test(text.trim()))) return null;
  const [whole = '', rest = ''] = number.split('.');
  const filled = rest.padEnd(decimals, '0');
  return filled ? `${whole}.${filled}` : whole;
}
