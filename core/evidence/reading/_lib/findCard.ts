import type { Found } from '../reading.types.ts';
import { confidenceAt, plain, spotAt, type TextLine } from './lines.ts';
import { any } from './vocabulary.ts';

const MASK = String.raw`[*xX•·∙●#]`;
const LAST_FOUR = String.raw`(\d{4})(?![\d*#•:/%]|[.,]\d)`;
/** Two or more marks before four digits, whatever stands before them. */
const MASKED = new RegExp(String.raw`(?<!\p{L})(?:${MASK}[\s-]?){2,24}[\s-]{0,3}${LAST_FOUR}`, 'u');
/** One mark, dots or a bracket before four digits: enough beside a word for a card. */
const MARKED = new RegExp(String.raw`^[\s*xX•·∙●#.…+«»:(-]*${LAST_FOUR}`, 'u');

const CARD = any([
  'visa',
  'master ?card',
  'maestro',
  'amex',
  'american express',
  'diners',
  'giro ?card(?:e)?',
  'v ?pay',
  'dankort',
  'bank ?(?:ax)?kort',
  '(?:kredit|debit|betal)?kort',
  '(?:debit|credit|bank|chip)? ?card',
  '(?:kredit|debit|bank|giro|ec)?-?karte',
  'carte(?: bancaire| bleue)?',
  'tarjeta',
  'cartao',
  'carta',
  'multibanco',
  'pan',
]);
/** What may stand between the word for a card and its digits. */
const BETWEEN = any([
  'n[ro]',
  'nummer',
  'number',
  'ending',
  'ends',
  'in',
  'with',
  'last',
  'four',
  'digits',
  'endet',
  'endend',
  'auf',
  'mit',
  'se',
  'terminant',
  'terminee?',
  'par',
  'terminada',
  'terminado',
  'en',
  'com',
  'final',
  'debit',
  'credit',
  'kredit',
  'contactless',
  'kontaktlos',
  'kontaktlo[os]s?',
  'sans',
  'contact',
  'slutter',
  'slutar',
  'pa',
]);

/** Whether a line names a card. */
export const isCardLine = (text: string): boolean => CARD.test(plain(text));
/** Whether four digits stand on a line by themselves, or behind marks. */
export const hasFourDigits = (text: string): boolean => /(?<![\d.,/])\d{4}(?![\d.,/])/.test(text);

/**
 * The last four digits of the card it was paid with: after a masked number, or, however they are marked, after a word for
 * a card. @param total what was paid, in minor units: in a currency without decimals it may look like them
 */
export function findCardDigits(lines: readonly TextLine[], total: bigint | null): Found | null {
  const found = lines.flatMap((line, i) => masked(line) ?? afterCard(line, lines[i - 1], total) ?? []);
  const best = found.find((f) => f.sure === 'sure') ?? found[0];
  if (!best) return null;
  const contested = found.some((f) => f.value !== best.value);
  return contested && best.sure === 'sure' ? { ...best, sure: 'likely' } : best;
}

function masked(line: TextLine): Found | null {
  const match = MASKED.exec(line.text);
  if (!match) return null;
  const end = match.index + match[0].length;
  const sure = confidenceAt(line, match.index, end) >= 60 ? 'sure' : 'likely';
  return { value: match[1]!, sure, spot: spotAt(line, end - 4, end), because: 'it ends a masked card number' };
}

/** Four digits after a word for a card on the same line, or marked as such on the line below. */
function afterCard(line: TextLine, above: TextLine | undefined, total: bigint | null): Found | null {
  const text = plain(line.text);
  if (text.length !== line.text.length) return null;
  const card = lastMatch(CARD, text);
  const from = card ? skipWords(text, card.index + card[0].length) : 0;
  const aboveNames = above?.page === line.page && CARD.test(plain(above.text)) && /^[*•·∙●#.…]/.test(line.text);
  if (!card && !aboveNames) return null;
  const match = MARKED.exec(text.slice(from));
  if (!match || match[1] === String(total)) return null;
  const end = from + match[0].length;
  return {
    value: match[1]!,
    sure: 'likely',
    spot: spotAt(line, end - 4, end),
    because: 'it follows the word for a card',
  };
}

/** The last word for a card that is not one of a number after it. */
const lastMatch = (pattern: RegExp, text: string): RegExpExecArray | undefined =>
  [...text.matchAll(new RegExp(pattern.source, 'gu'))].at(-1);

/** Where the words end that may stand between a card and its digits. */
function skipWords(text: string, from: number): number {
  const word = /^[\s.:,-]*([a-z]+)\.?/.exec(text.slice(from));
  return word && BETWEEN.test(word[1]!) && !/^x+$/.test(word[1]!) ? skipWords(text, from + word[0].length) : from;
}
