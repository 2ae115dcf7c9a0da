import type { Box, Spot, Word } from '../reading.types.ts';

/** Words of one height on a page, left to right, with the text they make. */
export interface TextLine {
  page: number;
  words: Word[];
  text: string;
  /** Where each word begins in `text`. */
  offsets: number[];
  box: Box;
  /** The lowest confidence of its words. */
  confidence: number;
}

/**
 * Puts words into lines by their height on the page, whatever blocks the reader saw, so that a label at the left and
 * its amount at the right margin come together.
 */
export function toLines(words: readonly Word[]): TextLine[] {
  const sorted = words
    .filter((w) => w.text.trim() !== '')
    .sort((a, b) => a.page - b.page || middle(a.box) - middle(b.box));
  const groups: Word[][] = [];
  for (const word of sorted) {
    const group = groups.at(-1);
    if (group && together(group, word)) group.push(word);
    else groups.push([word]);
  }
  return groups.map(makeLine);
}

const middle = (box: Box): number => box.y + box.height / 2;

function together(group: readonly Word[], word: Word): boolean {
  const last = group.slice(-4);
  if (last[0]!.page !== word.page) return false;
  const centre = last.reduce((a, w) => a + middle(w.box), 0) / last.length;
  const height = Math.max(...last.map((w) => w.box.height), word.box.height);
  return Math.abs(middle(word.box) - centre) < height * 0.5;
}

function makeLine(group: Word[]): TextLine {
  const words = [...group].sort((a, b) => a.box.x - b.box.x);
  const offsets: number[] = [];
  let text = '';
  for (const word of words) {
    if (text) text += ' ';
    offsets.push(text.length);
    text += word.text;
  }
  return {
    page: words[0]!.page,
    words,
    text,
    offsets,
    box: around(words.map((w) => w.box)),
    confidence: Math.min(...words.map((w) => w.confidence)),
  };
}

export function around(boxes: readonly Box[]): Box {
  const x = Math.min(...boxes.map((b) => b.x));
  const y = Math.min(...boxes.map((b) => b.y));
  const right = Math.max(...boxes.map((b) => b.x + b.width));
  const bottom = Math.max(...boxes.map((b) => b.y + b.height));
  return { x, y, width: right - x, height: bottom - y };
}

/** The words of a line that make the characters from `start` to `end`. */
export function wordsAt(line: TextLine, start: number, end: number): Word[] {
  return line.words.filter((w, i) => line.offsets[i]! < end && line.offsets[i]! + w.text.length > start);
}

/** Where the characters from `start` to `end` of a line stand on the page. */
export function spotAt(line: TextLine, start: number, end: number): Spot {
  const words = wordsAt(line, start, end);
  return { page: line.page, box: around(words.length ? words.map((w) => w.box) : [line.box]) };
}

/** The lowest confidence of the words that make these characters. */
export function confidenceAt(line: TextLine, start: number, end: number): number {
  return Math.min(100, ...wordsAt(line, start, end).map((w) => w.confidence));
}

/** Text without accents and in small letters, of the same length for Latin letters, to look for words in. */
export const plain = (text: string): string =>
  text
    .replaceAll('ß', 's')
    .replaceAll('æ', 'a')
    .replaceAll('Æ', 'a')
    .replaceAll('ø', 'o')
    .replaceAll('Ø', 'o')
    .replaceAll('ł', 'l')
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase();
