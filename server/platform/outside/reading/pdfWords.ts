import type { PDFDocumentProxy } from 'pdfjs-dist';
import { Util } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Box, Word } from '../../../../core/evidence/reading/reading.types.ts';
import type { PageRead } from './recognise.ts';
import { turnBox, turnBoxBack } from './turns.ts';

/** A run of text on the page as it is shown, in points from its top left corner. */
interface Run {
  text: string;
  /** Where its first letter stands on the base line. */
  x: number;
  y: number;
  /** Along the text, and from the base line upwards. */
  along: readonly [number, number];
  up: readonly [number, number];
  long: number;
  size: number;
}

/** The words of a page exactly as the PDF states them; of a page drawn on its side, as they stand once it is turned. */
export async function readPdfPage(pdf: PDFDocumentProxy, number: number): Promise<PageRead> {
  const page = await pdf.getPage(number);
  const { width, height, transform } = page.getViewport({ scale: 1 });
  const { items } = await page.getTextContent();
  const runs = joined(items.flatMap((item) => ('str' in item && item.str !== '' ? [runOf(item, transform)] : [])));
  const turns = turnsOf(runs);
  const words = runs
    .flatMap((run) => wordsOfRun(run, number, width, height))
    .map((word) => ({ ...word, box: turnBox(word.box, turns) }));
  return {
    words,
    turns,
    letters: true,
    place: (box) => turnBoxBack(box, turns),
    lookAgain: async () => words,
    lookForCard: async () => [],
  };
}

interface TextItem {
  str: string;
  transform: number[];
  width: number;
  height: number;
}

function runOf({ str, transform, width, height }: TextItem, viewport: number[]): Run {
  const [a, b, c, d, e, f] = Util.transform(viewport, transform) as [number, number, number, number, number, number];
  const size = height || Math.hypot(c, d);
  return { text: str, x: e, y: f, along: unit(a, b), up: unit(c, d), long: width, size };
}

const unit = (x: number, y: number): readonly [number, number] => {
  const length = Math.hypot(x, y) || 1;
  return [x / length, y / length];
};

/** Runs that follow each other on one line without a space are one: many programs write a word in pieces. */
function joined(runs: readonly Run[]): Run[] {
  const out: Run[] = [];
  for (const run of runs) {
    const last = out.at(-1);
    if (last && touches(last, run))
      out[out.length - 1] = { ...last, text: last.text + run.text, long: gapTo(last, run) + run.long };
    else out.push(run);
  }
  return out;
}

/** How far along its line a run begins after the beginning of another. */
const gapTo = (a: Run, b: Run): number => (b.x - a.x) * a.along[0] + (b.y - a.y) * a.along[1];

function touches(a: Run, b: Run): boolean {
  const across = Math.abs((b.x - a.x) * a.along[1] - (b.y - a.y) * a.along[0]);
  const sameWay = a.along[0] * b.along[0] + a.along[1] * b.along[1] > 0.99;
  const near = Math.abs(gapTo(a, b) - a.long) < a.size * 0.12;
  return sameWay && near && across < a.size * 0.2 && !/\s$/.test(a.text) && !/^\s/.test(b.text);
}

/** Quarter turns after which most letters of the page stand upright. */
function turnsOf(runs: readonly Run[]): number {
  const letters = [0, 0, 0, 0];
  for (const { text, along } of runs) {
    const way = Math.round(Math.atan2(along[1], along[0]) / (Math.PI / 2));
    letters[(4 - way) % 4]! += text.trim().length;
  }
  return letters.indexOf(Math.max(...letters));
}

function wordsOfRun(run: Run, page: number, width: number, height: number): Word[] {
  const letter = run.text.length ? run.long / run.text.length : 0;
  return [...run.text.matchAll(/\S+/g)].map((match) => ({
    text: match[0],
    page,
    confidence: 100,
    box: boxOf(run, match.index * letter, match[0].length * letter, width, height),
  }));
}

/** The part of a run from a distance along it, as a box of the page. */
function boxOf({ x, y, along, up, size }: Run, from: number, long: number, width: number, height: number): Box {
  const corners = [0, 1].flatMap((end) =>
    [0, 1].map((top) => [
      x + along[0] * (from + end * long) + up[0] * top * size,
      y + along[1] * (from + end * long) + up[1] * top * size,
    ]),
  ) as [number, number][];
  const [xs, ys] = [corners.map(([cx]) => cx / width), corners.map(([, cy]) => cy / height)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return { x: left, y: top, width: Math.max(...xs) - left, height: Math.max(...ys) - top };
}
