import { isCardLine, hasFourDigits } from './_lib/findCard.ts';
import { around, toLines } from './_lib/lines.ts';
import type { Box, Word } from './reading.types.ts';

const MOST_PLACES = 6;

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
    const beside = { x: left, y, width: 1 - left, height };
    const below = { x: 0, y: y + height * 1.35, width: 1, height };
    const next = lines[i + 1];
    const free = next?.page !== line.page || next.box.y > below.y + height;
    return [{ page: line.page, box: beside }, ...(free ? [{ page: line.page, box: below }] : [])];
  });
  return places.slice(-MOST_PLACES);
}
