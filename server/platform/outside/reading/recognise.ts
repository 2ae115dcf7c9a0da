import sharp from 'sharp';
import { PSM } from 'tesseract.js';
import type { Box, Word } from '../../../../core/evidence/reading/reading.types.ts';
import { LATIN } from '../languages.ts';
import { isScriptWithoutSpaces, joined } from './joined.ts';
import { lookForCard } from './lookForCard.ts';
import { workerOf } from './workers.ts';
import { SHORT_SIDE, SHORT_SIDE_OF_SIGNS, straighten } from './straighten.ts';

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
  /** Whether its letters were read; those of a script nobody looked for come out as scattered others. */
  letters: boolean;
}

const GOOD_CONFIDENCE = 75;
/** What is recognised with less is ink. */
const LEAST_CONFIDENCE = 5;
/** The share of letters in good words from which a page is taken to stand upright, and how many there are at least. */
const GOOD_SHARE = 0.4;
const GOOD_LETTERS = 20;

/** Letters, besides figures, of which fewer than this share stand in good words are of a script that was not looked for. */
const READ_SHARE = 0.3;
const SOME_LETTERS = 12;

/**
 * Recognises the words of a picture. One that does not read well is tried lying on its sides and on its head; the way
 * that has most letters in words that were recognised well is taken. Boxes are those of the straightened picture, where
 * rows are level; `place` turns one into a box of the picture as its camera meant it. Where its letters are of no Latin
 * script the other languages are tried.  @param first the quarter turns tried first: what its owner said, or what the page
 * before needed
 */
export async function recognise(
  picture: Buffer,
  page: number,
  first = 0,
  languages: readonly string[] = [],
): Promise<PageRead> {
  const upright = await sharp(picture).rotate().png({ compressionLevel: 1 }).toBuffer();
  let best: PageRead | null = null;
  for (const more of [0, 1, 3, 2]) {
    const turned = await inAnyLanguage(upright, page, (first + more) % 4, languages);
    if (!best || goodLetters(turned) > goodLetters(best)) best = turned;
    if (isGood(best)) break;
  }
  return best!;
}

/** Figures are read whatever the language, so a page that stands upright has good ones though none of its letters is. */
async function inAnyLanguage(picture: Buffer, page: number, turns: number, languages: readonly string[]) {
  let best = await attempt(picture, page, turns, LATIN);
  for (const language of languages) {
    if (best.letters || goodLetters(best) === 0) break;
    const other = await attempt(picture, page, turns, language);
    if (goodLetters(other) > goodLetters(best)) best = other;
  }
  return best;
}

const lettersIn = ({ text }: Word): number => text.match(/[\p{L}\d]/gu)?.length ?? 0;
const sum = (words: readonly Word[]): number => words.reduce((a, w) => a + lettersIn(w), 0);
/** Letters in words of three and more that were recognised well. Scattered ink gives many words, but hardly one of these. */
const goodLetters = ({ words }: PageRead): number =>
  sum(words.filter((w) => w.confidence >= GOOD_CONFIDENCE && (lettersIn(w) >= 3 || isScriptWithoutSpaces(w.text))));
const isGood = (read: PageRead): boolean => goodLetters(read) >= Math.max(GOOD_LETTERS, sum(read.words) * GOOD_SHARE);

const legible = (words: readonly Word[]): Word[] => words.filter((w) => w.confidence > LEAST_CONFIDENCE);

/** Whether the letters that are no figures stand in words that were recognised well, where there are some. */
function areRead(words: readonly Word[]): boolean {
  const letters = (of: readonly Word[]) => of.reduce((a, w) => a + (w.text.match(/\p{L}/gu)?.length ?? 0), 0);
  const all = letters(words);
  return all < SOME_LETTERS || letters(words.filter((w) => w.confidence >= GOOD_CONFIDENCE)) >= all * READ_SHARE;
}

async function attempt(picture: Buffer, page: number, turns: number, language: string): Promise<PageRead> {
  const side = language === LATIN ? SHORT_SIDE : SHORT_SIDE_OF_SIGNS;
  const { png, width, height, place } = await straighten(picture, turns, { side });
  const wordsOf = wordsIn(language);
  const all = await wordsOf(png, { width, height }, page, PSM.SINGLE_BLOCK);
  const words = legible(all);
  const lookAgain = async () => {
    const size = { width: Math.round(width / 2), height: Math.round(height / 2) };
    const half = await sharp(png).resize(size.width, size.height).png({ compressionLevel: 1 }).toBuffer();
    const lonely = await wordsOf(half, size, page, PSM.SPARSE_TEXT);
    const reversed = await straighten(picture, turns, { side, reversed: true });
    const white = await wordsOf(reversed.png, reversed, page, PSM.SINGLE_BLOCK);
    return better(better(words, legible(lonely), 0), legible(white), 1);
  };
  const letters = areRead(all);
  return { words, turns, place, letters, lookAgain, lookForCard: () => lookForCard(png, words, digitsOf) };
}

/** Words, and those of another look where they were read better: of two in one place the first stays, unless the other is surer. */
function better(words: readonly Word[], others: readonly Word[], surer: 0 | 1): Word[] {
  const loses = (w: Word, to: Word) => overlap(w.box, to.box) && surer === 1 && to.confidence > w.confidence + 10;
  const kept = words.filter((w) => !others.some((o) => loses(w, o)));
  return [...kept, ...others.filter((o) => !kept.some((w) => overlap(w.box, o.box)))];
}

const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

type Size = Record<'width' | 'height', number>;
const wordsIn =
  (language: string) =>
  async (png: Buffer, size: Size, page: number, mode: PSM): Promise<Word[]> => {
    const recogniser = await workerOf(language);
    await recogniser.setParameters({ tessedit_pageseg_mode: mode, tessedit_char_whitelist: '' });
    const { data } = await recogniser.recognize(png, {}, { blocks: true, text: false });
    const lines = (data.blocks ?? []).flatMap((b) => b.paragraphs.flatMap((p) => p.lines));
    return lines.flatMap((line) => {
      const found = line.words.filter((w) => w.text.trim() !== '');
      const words = found.map(({ text, confidence, bbox }) => ({
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
      return language === LATIN ? words : joined(words, size);
    });
  };

/** The digits of a picture that holds nothing else. */
async function digitsOf(picture: Buffer): Promise<string> {
  const recogniser = await workerOf(LATIN);
  await recogniser.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_WORD, tessedit_char_whitelist: '0123456789' });
  const { data } = await recogniser.recognize(picture);
  return data.text.trim();
}
