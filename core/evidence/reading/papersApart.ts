import { merchantSameness } from '../merchants/merchantWords.ts';
import { around, toLines, type TextLine } from './_lib/lines.ts';
import { readDocument } from './readDocument.ts';
import type { Box, Reading, Word } from './reading.types.ts';

/** A part with fewer words is no paper. */
const FEWEST_WORDS = 8;
/** So wide, of the page, is the gap between two papers that lie side by side, at least. */
const GUTTER = 0.015;
/** Between papers that lie one below the other is a gap of so many rows, and it is among the largest of the page. */
const ROWS_BETWEEN = 1.2;
const GAPS_TRIED = 6;
/** Names less alike than this are those of two merchants. */
const SAME_MERCHANT = 0.6;
const AROUND = 0.01;

/**
 * The papers of one page that shows more than one, each by its place; null where it shows one. Two papers have each a total, a day
 * and a name of their own; a bill and the slip of the card it was paid with are one. Reads each side of every gap by
 * itself, so nothing but what a reader of one paper would take counts.
 * Example: two tickets of 12.00 and 8.40 side by side → two boxes.
 */
export function papersApart(words: readonly Word[], asOf: string): Box[] | null {
  const parts = divided(words, asOf);
  return parts.length > 1 ? parts.map((part) => widened(around(part.map((w) => w.box)))) : null;
}

function divided(words: readonly Word[], asOf: string): Word[][] {
  for (const { parts, isApart } of [...sideBySide(words), ...below(words)]) {
    const [a, b] = parts;
    if (a.length < FEWEST_WORDS || b.length < FEWEST_WORDS) continue;
    const readings = parts.map((part) => readDocument(part, asOf)) as [Reading, Reading];
    if (readings.every(isWhole) && isApart(...readings)) return [...divided(a, asOf), ...divided(b, asOf)];
  }
  return [[...words]];
}

interface Cut {
  parts: [Word[], Word[]];
  isApart: (a: Reading, b: Reading) => boolean;
}

/** What stands to the left and to the right of a strip that no word crosses. */
function sideBySide(words: readonly Word[]): Cut[] {
  const sorted = [...words].sort((a, b) => a.box.x - b.box.x);
  const cuts: Cut[] = [];
  let right = 0;
  sorted.forEach((word, i) => {
    // a column of labels and one of amounts do not make two papers: each side has its own total and its own name
    if (i > 0 && word.box.x - right >= GUTTER)
      cuts.push({ parts: [sorted.slice(0, i), sorted.slice(i)], isApart: () => true });
    right = Math.max(right, word.box.x + word.box.width);
  });
  return cuts;
}

/** What stands above and below the largest gaps between rows. */
function below(words: readonly Word[]): Cut[] {
  const lines = toLines(words);
  const heights = lines.map((l) => l.box.height).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1] ?? 0;
  return lines
    .map((line, i) => ({ i, gap: i === 0 ? 0 : line.box.y - bottomOf(lines[i - 1]!) }))
    .filter(({ gap }) => gap >= usual * ROWS_BETWEEN)
    .sort((a, b) => b.gap - a.gap)
    .slice(0, GAPS_TRIED)
    .map(({ i }) => ({ parts: [wordsOf(lines.slice(0, i)), wordsOf(lines.slice(i))], isApart: isOther }));
}
const bottomOf = ({ box }: TextLine): number => box.y + box.height;
const wordsOf = (lines: readonly TextLine[]): Word[] => lines.flatMap((line) => line.words);

/** A part that would be taken for a paper: a total that is named as one, a day, and somebody who sold. */
const isWhole = ({ amount, date, merchant }: Reading): boolean =>
  amount !== null && amount.sure !== 'doubtful' && date !== null && merchant !== null;

/** A slip below its bill has its total or, with a tip, its day and its name. */
const isOther = (a: Reading, b: Reading): boolean =>
  a.amount!.value !== b.amount!.value
  && (a.date!.value !== b.date!.value || merchantSameness(a.merchant!.value, b.merchant!.value) < SAME_MERCHANT);

function widened(box: Box): Box {
  const [x, y] = [Math.max(0, box.x - AROUND), Math.max(0, box.y - AROUND)];
  return {
    x,
    y,
    width: Math.min(1, box.x + box.width + AROUND) - x,
    height: Math.min(1, box.y + box.height + AROUND) - y,
  };
}
