import { minorUnits } from './minorUnits.ts';
import { fromMinor } from './amount.ts';

export type LocalAmount = { ok: true; amount: string } | { ok: false; problem: string };

/**
 * An amount as a bank or a person writes it, in the decimals of its currency. `mark` stands before the decimals; the
 * other of point and comma, spaces and apostrophes only group thousands.
 * ("1.234,56", "EUR", ",") → "1234.56"; ("1 250", "JPY", ".") → "1250"; ("(12.00)", "EUR", ".") → "-12.00".
 * Decimals that a currency does not have may stand as ".00"; ("-.50", "EUR", ".") → "-0.50".
 * Refused with what to do: exponents, other digits than 0–9, "-0", more decimals than the currency has, wrong groups.
 */
export function readLocalAmount(text: string, currency: string, mark: '.' | ','): LocalAmount {
  const decimals = minorUnits(currency);
  if (decimals === null) return no(`"${currency}" is not a currency`);
  const trimmed = text
    .trim()
    .replace(/[\u00a0\u2009\u202f]/g, ' ')
    .replace('−', '-');
  if (trimmed === '') return no('there is no amount');
  if (/[^\x00-\x7f’]/.test(trimmed) && /\p{N}/u.test(trimmed.replace(/[0-9]/g, '')))
    return no(`"${text.trim()}" is written with other digits than 0 to 9`);
  const bracketed = /^\((.*)\)$/.exec(trimmed);
  const signed = bracketed ? `-${bracketed[1]}` : trimmed.replace(/^(.*\d)-$/, '-$1');
  const other = mark === '.' ? ',' : '.';
  const match = patternOf(mark).exec(signed);
  if (!match && patternOf(other).test(signed))
    return no(`"${text.trim()}" does not have ${mark === ',' ? 'a comma' : 'a point'} before its decimals`);
  if (!match) return no(`"${text.trim()}" is not an amount`);
  const { sign, whole = '', decimals: written = '' } = match.groups!;
  const rest = decimals === 0 && written === '00' ? '' : written;
  if (rest.length > decimals) return no(`"${text.trim()}" has more decimals than ${currency}`);
  const digits = whole.replace(/\D/g, '');
  if (digits === '' && rest === '') return no(`"${text.trim()}" is not an amount`);
  if (digits.length > 13) return no(`"${text.trim()}" is too large`);
  const minor = BigInt(`${digits}${rest.padEnd(decimals, '0')}`);
  if (minor === 0n && sign === '-') return no(`"${text.trim()}" is a zero with a sign`);
  return { ok: true, amount: fromMinor(sign === '-' ? -minor : minor, currency) };
}

const no = (problem: string): LocalAmount => ({ ok: false, problem });

/** Sign, digits that may be grouped in threes by one sign, and decimals after the mark. */
function patternOf(mark: '.' | ','): RegExp {
  const groups = mark === '.' ? ",'’ " : ".'’ ";
  return new RegExp(
    `^(?<sign>[+-]?) ?(?<whole>\\d{1,3}(?:(?<group>[${groups}])\\d{3})(?:\\k<group>\\d{3})*|\\d*)(?:\\${mark}(?<decimals>\\d+))?$`,
  );
}
