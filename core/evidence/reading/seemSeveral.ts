import { minorUnits } from '../../numbers/minorUnits.ts';
import { findCardDigits } from './_lib/findCard.ts';
import { findTaxNumber } from './_lib/findTaxNumber.ts';
import { toLines, type TextLine } from './_lib/lines.ts';
import type { Word } from './reading.types.ts';

/** So many kinds of what a paper has once stand there twice before it seems to be several. */
const KINDS = 2;

/**
 * Whether a page seems to show several papers, though where one ends and the other begins cannot be told: of the seller's tax
 * number, the card's last digits, the moment and the currency two kinds or more stand there with different values. One kind
 * alone is common on one paper: the buyer's tax number on an invoice, the days of a stay, the currency of the card.
 */
export function seemSeveral(words: readonly Word[]): boolean {
  const lines = toLines(words);
  const kinds = [
    byLine(lines, (line) => [findTaxNumber([line])?.value]),
    byLine(lines, (line) => [findCardDigits([line], null)?.value]),
    byLine(lines, ({ text }) => [...text.matchAll(MOMENT)].map((m) => m[1])),
    byLine(lines, ({ text }) => [...text.matchAll(CODE)].map((m) => m[0]).filter((code) => minorUnits(code) !== null)),
  ];
  return kinds.filter((values) => values.size > 1).length >= KINDS;
}

const MOMENT = /(\d{1,4}[./-]\d{1,2}[./-]\d{2,4})\D{0,4}\d{1,2}:\d{2}(?!\d)/gu;
const CODE = /(?<!\p{L})[A-Z]{3}(?!\p{L})/gu;

function byLine(lines: readonly TextLine[], of: (line: TextLine) => readonly (string | undefined)[]): Set<string> {
  return new Set(lines.flatMap(of).filter((value) => value !== undefined));
}
