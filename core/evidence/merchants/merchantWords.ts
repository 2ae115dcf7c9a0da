import { GENERAL_WORDS } from './generalWords.ts';

const LEGAL = new Set(
  'ltd limited plc inc llc gmbh ag kg as asa ab oy oyj aps sarl sas sa srl spa lda bv nv kk co the and und et'.split(
    ' ',
  ),
);

/**
 * The words that tell a merchant: without case, accents, punctuation, legal forms and shop numbers. "Café Ördög Ltd." →
 * ["cafe", "ordog"]; "" → [].
 */
export function merchantWords(name: string): string[] {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/ß/g, 'ss')
    .replace(/æ/gi, 'ae')
    .replace(/ø/gi, 'o')
    .toLowerCase();
  return [...new Set(plain.split(/[^\p{L}\p{N}]+/u).filter((word) => word && !LEGAL.has(word)))];
}

/**
 * How alike two merchants are, 0 to 1: the share of the shorter name's words that stand in the longer one. With `cut`,
 * words that a bank cut off count too when at least three letters are left ("slaney quay sto" and "Slaney Quay
 * Stores"). ("Quay Hotel", "QUAY HOTEL DUBLIN") → 1; ("Quay Hotel", "Pier Cafe") → 0.
 */
export function merchantLikeness(a: string | null, b: string | null, cut = true): number {
  return a && b ? sharedPart(merchantWords(a), merchantWords(b), cut) : 0;
}

/**
 * As `merchantLikeness`, by the words that tell one merchant from another: what names its trade alone makes nobody alike, and
 * two trades under one name are two merchants. ("Quay Hotel", "QUAY HOTEL DUBLIN") → 1; ("PETREL PRINT", "Petrel Cafe") → 0;
 * ("Cafe", "Petrel Cafe") → 0.
 */
export function merchantSameness(a: string | null, b: string | null): number {
  if (!a || !b) return 0;
  const [first, second] = [partedWords(a), partedWords(b)];
  const own = first.own.length === 0 && second.own.length === 0 ? 'trades' : 'own';
  const otherTrade =
    first.trades.length > 0 && second.trades.length > 0 && sharedPart(first.trades, second.trades, true) === 0;
  return otherTrade ? 0 : sharedPart(first[own], second[own], true);
}

function partedWords(name: string): { own: string[]; trades: string[] } {
  const words = merchantWords(name);
  return { own: words.filter((w) => !GENERAL_WORDS.has(w)), trades: words.filter((w) => GENERAL_WORDS.has(w)) };
}

/** The share of the shorter list's words that stand in the longer one. */
function sharedPart(first: readonly string[], second: readonly string[], cut: boolean): number {
  const [short, long] = first.length <= second.length ? [first, second] : [second, first];
  if (short.length === 0) return 0;
  const agreeing = short.filter((word) =>
    long.some((other) => word === other || (cut && sameBeginning(word, other))),
  ).length;
  return agreeing / short.length;
}

const sameBeginning = (a: string, b: string): boolean =>
  Math.min(a.length, b.length) >= 3 && (a.startsWith(b) || b.startsWith(a));
