import { visible } from '../../../../core/numbers/visible.ts';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import opentype from 'opentype.js';
import sharp from 'sharp';
import type { Word } from '../../../../core/evidence/reading/reading.types.ts';
import type { PageView } from './reading.types.ts';

const require = createRequire(import.meta.url);
const FONTS = ['latin', 'latin-ext'].map(
  (set) => `@fontsource/source-sans-3/files/source-sans-3-${set}-400-normal.woff`,
);
const WIDTH = 900;
const MARGIN = 48;
const SIZE = 20;
const LEADING = 30;
const ROWS_A_PAGE = 42;
const LETTERS_A_ROW = 88;
const MOST_ROWS = ROWS_A_PAGE * 10;

let fonts: opentype.Font[] | null = null;
const loadFonts = () =>
  (fonts ??= FONTS.map((file) => {
    const bytes = readFileSync(require.resolve(file));
    return opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
  }));

/** Text set on pages: the same text always stands in the same places, so marks can be drawn without keeping them. */
export interface SetText {
  words: Word[];
  pages: Word[][];
  height: number;
}

/** Breaks text into rows and says where each word stands. Long texts are cut after ten pages. */
export function setText(text: string): SetText {
  const rows = text.split(/\r?\n/).flatMap(breakRow).slice(0, MOST_ROWS);
  const pages: Word[][] = [];
  const height = MARGIN * 2 + ROWS_A_PAGE * LEADING;
  rows.forEach((row, i) => {
    const page = Math.floor(i / ROWS_A_PAGE);
    const top = MARGIN + (i % ROWS_A_PAGE) * LEADING;
    (pages[page] ??= []).push(...wordsOfRow(row, page + 1, top, height));
  });
  if (pages.length === 0) pages.push([]);
  return { words: pages.flat(), pages, height };
}

function breakRow(row: string): string[] {
  const clean = visible(row.replace(/\t/g, '    '));
  const rows: string[] = [];
  for (let rest = clean; ;) {
    if (rest.length <= LETTERS_A_ROW) return [...rows, rest];
    const space = rest.lastIndexOf(' ', LETTERS_A_ROW);
    const cut = space > LETTERS_A_ROW / 2 ? space : LETTERS_A_ROW;
    rows.push(rest.slice(0, cut));
    rest = rest.slice(cut).trimStart();
  }
}

function wordsOfRow(row: string, page: number, top: number, height: number): Word[] {
  const letter = (WIDTH - 2 * MARGIN) / LETTERS_A_ROW;
  return [...row.matchAll(/\S+/g)].map((match) => ({
    text: match[0],
    page,
    confidence: 100,
    box: {
      x: (MARGIN + match.index * letter) / WIDTH,
      y: top / height,
      width: (match[0].length * letter) / WIDTH,
      height: SIZE / height,
    },
  }));
}

/** Pictures of set text, drawn from the shapes of a shipped font, so that they are the same on every machine. */
export async function drawText({ pages, height }: SetText): Promise<PageView[]> {
  return Promise.all(pages.map((words) => drawPage(words, height)));
}

async function drawPage(words: readonly Word[], height: number): Promise<PageView> {
  const paths = words
    .map((w) => pathOf(w.text, w.box.x * WIDTH, w.box.y * height + SIZE * 0.82, w.box.width * WIDTH))
    .join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}"><rect width="100%" height="100%" fill="#fff"/>${paths}</svg>`;
  const bytes = await sharp(Buffer.from(svg)).webp({ quality: 80, effort: 1 }).toBuffer();
  return { bytes, type: 'image/webp', width: WIDTH, height };
}

/** One word as a path, letters of one width so that columns stay columns. */
function pathOf(text: string, x: number, y: number, width: number): string {
  const letters = [...text];
  const step = width / letters.length;
  const shapes = letters.map((letter, i) => {
    const font = loadFonts().find((f) => f.charToGlyphIndex(letter) > 0);
    return font ? font.getPath(letter, x + i * step, y, SIZE * 0.9).toPathData(1) : '';
  });
  return `<path fill="#222" d="${shapes.join('')}"/>`;
}
