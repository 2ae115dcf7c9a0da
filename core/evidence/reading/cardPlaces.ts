import { isCardLine, hasFourDigits } from './_lib/findCard.ts';
import { around, toLines } from './_lib/lines.ts';
import type { Box, Word } from './reading.types.ts';

const MOST_PLACES = 8;
/** From one row of a till to the next, in heights of a word: dense ones and wide ones. */
const PITCHES = [1.35, 1.9];
/** Ink that was taken for words, and that the recogniser itself did not believe, is no row. */
const LEGIBLE = 60;
const isLegible = ({ text, confidence }: Word): boolean => confidence >= LEGIBLE && /[\p{L}\d]{2}/u.test(text);
const isAmount = ({ text }: Word): boolean => /\d[.,]\d{2}$/.test(text);

/**
 * Where a masked card number may stand that was not recognised: right of a word for a card that has no digits beside it,
 * and the free row below it. @returns boxes of the page, the likeliest first
 */
export function cardPlaces(words: readonly Word[]): { page: number; box: Box }[] {
  const lines = toLines(words);
  const places = lines.flatMap((line, i) => {
    if (!isCardLine(line.text) || hasFourDigits(line.text)) return [];
    const card = around(line.words.filter((w) => isCardLine(w.text)).map((w) => w.box));
    const { y, height } = card.width > 0 ? card : line.box;
    const left = card.width > 0 ? card.x + card.width : line.box.x;
    const end = Math.min(1, ...line.words.filter((w) => w.box.x >= left && isAmount(w)).map((w) => w.box.x));
    const beside = { x: left, y, width: end - left, height };
    const below = PITCHES.map((pitch) => ({ x: 0, y: y + height * pitch, width: 1, height }));
    const next = lines.slice(i + 1).find((other) => other.words.some(isLegible));
    const free = below.filter((box) => next?.page !== line.page || next.box.y > box.y + height);
    return [beside, ...free].map((box) => ({ page: line.page, box }));
  });
  return places.slice(-MOST_PLACES);
}
