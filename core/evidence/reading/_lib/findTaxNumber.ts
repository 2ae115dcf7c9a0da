import type { Found } from '../reading.types.ts';
import { confidenceAt, plain, spotAt, type TextLine } from './lines.ts';
import { TAX_NUMBER_LABEL } from './vocabulary.ts';

/** Tax numbers by the shape their country gives them (VIES, structure of VAT identification numbers; from memory). */
const SHAPES: readonly RegExp[] = [
  /^ATU\d{8}$/,
  /^BE[01]\d{9}$/,
  /^CHE\d{9}(?:MWST|TVA|IVA)?$/,
  /^CZ\d{8,10}$/,
  /^DE\d{9}$/,
  /^DK\d{8}$/,
  /^ES[A-Z0-9]\d{7}[A-Z0-9]$/,
  /^FI\d{8}$/,
  /^FR[A-Z0-9]{2}\d{9}$/,
  /^GB\d{9}(?:\d{3})?$/,
  /^IE\d[A-Z0-9+*]\d{5}[A-Z]{1,2}$/,
  /^IT\d{11}$/,
  /^LU\d{8}$/,
  /^NL\d{9}B\d{2}$/,
  /^NO\d{9}(?:MVA)?$/,
  /^PL\d{10}$/,
  /^PT\d{9}$/,
  /^SE\d{12}$/,
  /^\d{9}MVA$/,
  /^T\d{13}$/,
];
const LOOSE = /^(?:[A-Z]{1,3})?\d[\dA-Z]{5,13}$/;
const LABELLED = new RegExp(`(?<![a-z])${TAX_NUMBER_LABEL.source}`, 'gu');

/** The merchant's tax number: what stands after a word for it, or has the shape of one. */
export function findTaxNumber(lines: readonly TextLine[]): Found | null {
  let second: Found | null = null;
  for (const line of lines) {
    for (const { at, end, text } of tokensAfterLabel(line)) {
      const known = SHAPES.some((shape) => shape.test(text));
      if (!known && !LOOSE.test(text)) continue;
      const confidence = confidenceAt(line, at, end);
      const found: Found = {
        value: text,
        sure: known && confidence >= 70 ? 'sure' : confidence >= 60 ? 'likely' : 'doubtful',
        spot: spotAt(line, at, end),
        because: 'it stands after the word for a tax number',
      };
      if (known) return found;
      second ??= found;
    }
  }
  return second ?? byShape(lines);
}

/** Runs of capitals and digits after each label of a line, joined over spaces, dots and hyphens, longest first. */
function tokensAfterLabel(line: TextLine): { at: number; end: number; text: string }[] {
  const text = plain(line.text);
  if (text.length !== line.text.length) return [];
  return [...text.matchAll(LABELLED)].flatMap((label) => {
    const from = label.index + label[0].length;
    const rest = /^[A-Z0-9][A-Z0-9 .\-/]{5,24}/.exec(line.text.slice(from).toUpperCase());
    if (!rest || !/\d{3}/.test(rest[0])) return [];
    const parts = rest[0].split(' ');
    return parts.map((_, i) => {
      const joined = parts.slice(0, parts.length - i).join(' ');
      return { at: from, end: from + joined.length, text: joined.replace(/[^A-Z0-9]/g, '') };
    });
  });
}

/** As a number is written that no word announces: in one piece, or, in Switzerland, with dots and the word for the tax behind it. */
const WRITTEN =
  /(?<![A-Z0-9])(?:[A-Z]{2,3}\d[\dA-Z]{6,12}(?![A-Z0-9])|CHE[- ]?\d{3}\.?\d{3}\.?\d{3}(?: ?(?:MWST|TVA|IVA))?(?![A-Z0-9]))/g;

function byShape(lines: readonly TextLine[]): Found | null {
  for (const line of lines)
    for (const match of line.text.matchAll(WRITTEN)) {
      const value = match[0].replace(/[^A-Z0-9]/g, '');
      if (!SHAPES.some((shape) => shape.test(value))) continue;
      const end = match.index + match[0].length;
      return {
        value,
        sure: 'likely',
        spot: spotAt(line, match.index, end),
        because: 'it has the shape of one',
      };
    }
  return null;
}
