import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { createWorker, PSM, type Worker } from 'tesseract.js';
import type { Box, Word } from '../../../../core/evidence/reading/reading.types.ts';
import { lookForCard } from './lookForCard.ts';
import { straighten } from './straighten.ts';

/** What a page says: words as they stand where its rows are level, and the way back to the page as it is. */
export interface PageRead {
  words: Word[];
  /** Quarter turns clockwise after which the page stands upright. */
  turns: number;
  place(box: Box): Box;
  /** A second look, for what stands alone, in large type or white on black: also words that the first one passed over. */
  lookAgain(): Promise<Word[]>;
  /** A look for the digits of a card, where a word for one has none beside it. */
  lookForCard(): Promise<Word[]>;
}

const require = createRequire(import.meta.url);
const GOOD_CONFIDENCE = 75;
/** The share of letters in good words from which a page is taken to stand upright, and how many there are at least. */
const GOOD_SHARE = 0.4;
const GOOD_LETTERS = 20;

let worker: Promise<Worker> | null = null;

function theWorker(): Promise<Worker> {
  const langPath = join(dirname(require.resolve('@tesseract.js-data/eng/package.json')), '4.0.0_best_int');
  worker ??= createWorker('eng', 1, { langPath, gzip: true, cacheMethod: 'none' }).then(async (made) => {
    await made.setParameters({ user_defined_dpi: '300' });
    return made;
  });
  return worker;
}

/**
 * Recognises the words of a picture. One that does not read well is tried lying on its sides and on its head; the way
 * that has most letters in words that were recognised well is taken. Boxes are those of the straightened picture, where
 * rows are level; `place` turns one into a box of the picture as its camera meant it.  @param first the quarter turns
 * tried first: what its owner said, or what the page before needed
 */
export async function recognise(picture: Buffer, page: number, first = 0): Promise<PageRead> {
  const upright = await sharp(picture).rotate().png({ compressionLevel: 1 }).toBuffer();
  let best = await attempt(upright, page, first);
  for (const more of [1, 3, 2]) {
    if (isGood(best)) break;
    const other = await attempt(upright, page, (first + more) % 4);
    if (goodLetters(other) > goodLetters(best)) best = other;
  }
  return best;
}

const lettersIn = ({ text }: Word): number => text.match(/[\p{L}\d]/gu)?.length ?? 0;
const sum = (words: readonly Word[]): number => words.reduce((a, w) => a + lettersIn(w), 0);
/** Letters in words of three and more that were recognised well. Scattered ink gives many words, but hardly one of these. */
const goodLetters = ({ words }: PageRead): number =>
  sum(words.filter((w) => w.confidence >= GOOD_CONFIDENCE && lettersIn(w) >= 3));
const isGood = (read: PageRead): boolean => goodLetters(read) >= Math.max(GOOD_LETTERS, sum(read.words) * GOOD_SHARE);

async function attempt(picture: Buffer, page: number, turns: number): Promise<PageRead> {
  const { png, width, height, place } = await straighten(picture, turns);
  const words = await wordsOf(png, { width, height }, page, PSM.SINGLE_BLOCK);
  const lookAgain = async () => {
    const size = { width: Math.round(width / 2), height: Math.round(height / 2) };
    const half = await sharp(png).resize(size.width, size.height).png({ compressionLevel: 1 }).toBuffer();
    const lonely = await wordsOf(half, size, page, PSM.SPARSE_TEXT);
    const reversed = await straighten(picture, turns, true);
    const white = await wordsOf(reversed.png, reversed, page, PSM.SINGLE_BLOCK);
    return better(better(words, lonely, 0), white, 1);
  };
  return { words, turns, place, lookAgain, lookForCard: () => lookForCard(png, words, digitsOf) };
}

/** Words, and those of another look where they were read better: of two in one place the first stays, unless the other is surer. */
function better(words: readonly Word[], others: readonly Word[], surer: 0 | 1): Word[] {
  const loses = (w: Word, to: Word) => overlap(w.box, to.box) && surer === 1 && to.confidence > w.confidence + 10;
  const kept = words.filter((w) => !others.some((o) => loses(w, o)));
  return [...kept, ...others.filter((o) => !kept.some((w) => overlap(w.box, o.box)))];
}

const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

async function wordsOf(png: Buffer, size: { width: number; height: number }, page: number, mode: PSM): Promise<Word[]> {
  const recogniser = await theWorker();
  await recogniser.setParameters({ tessedit_pageseg_mode: mode, tessedit_char_whitelist: '' });
  const { data } = await recogniser.recognize(png, {}, { blocks: true, text: false });
  const found = (data.blocks ?? []).flatMap((b) => b.paragraphs.flatMap((p) => p.lines.flatMap((l) => l.words)));
  return found
    .filter((w) => w.text.trim() !== '' && w.confidence > 5)
    .map(({ text, confidence, bbox }) => ({
      text,
      page,
      confidence,
      box: {
        x: bbox.x0 / size.width,
        y: bbox.y0 / size.height,
        width: (bbox.x1 - bbox.x0) / size.width,
        height: (bbox.y1 - bbox.y0) / size.height,
      },
    }));
}

/** The digits of a picture that holds nothing else. */
async function digitsOf(picture: Buffer): Promise<string> {
  const recogniser = await theWorker();
  await recogniser.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_WORD, tessedit_char_whitelist: '0123456789' });
  const { data } = await recogniser.recognize(picture);
  return data.text.trim();
}
