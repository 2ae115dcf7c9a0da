import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { createWorker, PSM, type Worker } from 'tesseract.js';
import type { Box, Word } from '../../../../core/evidence/reading/reading.types.ts';
import { straighten } from './straighten.ts';

/** What was recognised: words as they stand in the straightened picture, and the way back to the picture given. */
export interface Recognised {
  words: Word[];
  place(box: Box): Box;
  /** A second look, for what stands alone or in large type: also words that the first one passed over. */
  lookAgain(): Promise<Word[]>;
}

const require = createRequire(import.meta.url);
const GOOD_CONFIDENCE = 60;
const FEW_WORDS = 6;

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
 * Recognises the words of a picture. One that reads badly is tried lying on its sides and on its head. Boxes are those
 * of the straightened picture, where rows are level; `place` turns one into a box of the picture as its camera meant it.
 */
export async function recognise(picture: Buffer, page: number): Promise<Recognised> {
  const upright = await sharp(picture).rotate().png({ compressionLevel: 1 }).toBuffer();
  let best = await attempt(upright, page, 0);
  for (const turns of [1, 3, 2]) {
    if (qualityOf(best) >= GOOD_CONFIDENCE && best.words.length >= FEW_WORDS) break;
    const other = await attempt(upright, page, turns);
    if (qualityOf(other) * other.words.length > qualityOf(best) * best.words.length) best = other;
  }
  return best;
}

const qualityOf = ({ words }: Recognised): number =>
  words.length === 0 ? 0 : words.reduce((a, w) => a + w.confidence, 0) / words.length;

async function attempt(picture: Buffer, page: number, turns: number): Promise<Recognised> {
  const { png, width, height, place } = await straighten(picture, turns);
  const words = await wordsOf(png, { width, height }, page, PSM.SINGLE_BLOCK);
  const lookAgain = async () => {
    const size = { width: Math.round(width / 2), height: Math.round(height / 2) };
    const half = await sharp(png).resize(size.width, size.height).png({ compressionLevel: 1 }).toBuffer();
    const others = await wordsOf(half, size, page, PSM.SPARSE_TEXT);
    return [...words, ...others.filter((o) => !words.some((w) => overlap(w.box, o.box)))];
  };
  return { words, place, lookAgain };
}

const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

async function wordsOf(png: Buffer, size: { width: number; height: number }, page: number, mode: PSM): Promise<Word[]> {
  const recogniser = await theWorker();
  await recogniser.setParameters({ tessedit_pageseg_mode: mode });
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
