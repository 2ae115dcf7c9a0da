import sharp from 'sharp';
import { cardPlaces } from '../../../../core/evidence/reading/cardPlaces.ts';
import type { Box, Word } from '../../../../core/evidence/reading/reading.types.ts';

const INK = 130;
const LEAST_MARKS = 6;
/** What is put together from single glyphs is never sure. */
const CONFIDENCE = 55;
/** Words below this confidence may be what a masked number was taken for. */
const LEGIBLE = 60;

/** A masked number in a strip of a page: where its last four glyphs begin and end, in pixels of the page. */
interface Run {
  from: number;
  to: number;
}

/**
 * Looks for the last digits of a masked card number where a word for a card has none beside it: the recogniser passes
 * over rows of stars. The last four glyphs of a row of equal steps are cut out and recognised alone.
 */
export async function lookForCard(
  png: Buffer,
  words: readonly Word[],
  digitsOf: (picture: Buffer) => Promise<string>,
): Promise<Word[]> {
  const { width = 1, height = 1 } = await sharp(png).metadata();
  for (const { page, box } of cardPlaces(words)) {
    const strip = pixelsOf(box, width, height);
    if (strip.width < 20 || strip.height < 8) continue;
    const run = await maskedRun(png, strip);
    const place = run && { x: run.from / width, y: box.y, width: (run.to - run.from) / width, height: box.height };
    if (!place || words.some((w) => w.page === page && isTold(w) && overlap(w.box, place))) continue;
    const cut = { left: run.from, top: strip.top, width: run.to - run.from, height: strip.height };
    const picture = await sharp(png)
      .extract(cut)
      .resize({ height: 60 })
      .extend({ top: 16, bottom: 16, left: 24, right: 24, background: '#fff' })
      .png()
      .toBuffer();
    const digits = await digitsOf(picture);
    if (/^\d{4}$/.test(digits)) return [{ text: `****${digits}`, page, box: place, confidence: CONFIDENCE }];
  }
  return [];
}

/** A word that was read as such, or an amount, however faintly: no masked number. */
const isTold = ({ text, confidence }: Word): boolean => confidence >= LEGIBLE || /\d[.,]\d{2}$/.test(text);

const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height * 0.7 && b.y < a.y + a.height * 0.7;

interface Strip {
  left: number;
  top: number;
  width: number;
  height: number;
}

function pixelsOf(box: Box, width: number, height: number): Strip {
  const left = Math.max(0, Math.round(box.x * width));
  const top = Math.max(0, Math.round((box.y - box.height * 0.25) * height));
  return {
    left,
    top,
    width: Math.min(width - left, Math.round(box.width * width)),
    height: Math.min(height - top, Math.round(box.height * 1.5 * height)),
  };
}

/** The last four glyphs of the first row of at least six glyphs in equal steps. */
async function maskedRun(png: Buffer, strip: Strip): Promise<Run | null> {
  const { data } = await sharp(png).extract(strip).greyscale().raw().toBuffer({ resolveWithObject: true });
  const glyphs = columnsOfInk(data, strip.width, strip.height);
  const step = median(glyphs.slice(1).map((g, i) => g.middle - glyphs[i]!.middle));
  if (!step) return null;
  const rows: (typeof glyphs)[] = [];
  for (const glyph of glyphs) {
    const row = rows.at(-1);
    if (row && glyph.middle - row.at(-1)!.middle < step * 1.7) row.push(glyph);
    else rows.push([glyph]);
  }
  const row = rows.find((r) => r.length >= LEAST_MARKS);
  if (!row) return null;
  const end = row.at(-1)!.to;
  return {
    from: strip.left + Math.max(0, Math.round(end - 4.1 * step)),
    to: Math.min(strip.left + strip.width, strip.left + end + Math.round(step * 0.25)),
  };
}

/** Runs of columns with ink, from left to right. */
function columnsOfInk(data: Buffer, width: number, height: number) {
  const glyphs: { from: number; to: number; middle: number }[] = [];
  let from = -1;
  for (let x = 0; x <= width; x += 1) {
    let ink = 0;
    for (let y = 0; x < width && y < height; y += 1) if (data[y * width + x]! < INK) ink += 1;
    if (ink >= 2 && from < 0) from = x;
    if (ink < 2 && from >= 0) {
      if (x - from >= 2) glyphs.push({ from, to: x, middle: (from + x) / 2 });
      from = -1;
    }
  }
  return glyphs;
}

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
