import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import opentype from 'opentype.js';
import sharp from 'sharp';
import type { Box, Word } from '../core/evidence/reading/reading.types.ts';

/** What a drawn receipt shows. */
export interface ReceiptFacts {
  merchant: string;
  place: string;
  date: string;
  rows: [string, string][];
  total: string;
  currency: string;
  taxNumber: string | null;
  style: 'slip' | 'invoice';
  tilt: number;
}

const require = createRequire(import.meta.url);
const load = (file: string) => opentype.parse(readFileSync(require.resolve(file)).buffer.slice(0));
const fonts = {
  slip: lazy(() => [
    load('@fontsource/courier-prime/files/courier-prime-latin-400-normal.woff'),
    load('@fontsource/courier-prime/files/courier-prime-latin-ext-400-normal.woff'),
  ]),
  invoice: lazy(() => [
    load('@fontsource/source-sans-3/files/source-sans-3-latin-400-normal.woff'),
    load('@fontsource/source-sans-3/files/source-sans-3-latin-ext-400-normal.woff'),
  ]),
};

/** A till slip of Wexford over one total in euro, ISO date. */
export const drawSlip = (merchant: string, date: string, total: string, tilt = 0): Promise<Buffer> =>
  drawReceipt({
    merchant,
    place: 'Co. Wexford, Ireland',
    date,
    rows: [['Goods', total]],
    total,
    currency: 'EUR',
    taxNumber: 'IE6388047V',
    style: 'slip',
    tilt,
  });

const WIDTH = 460;

/** A receipt as a JPEG, drawn with shipped fonts so that it looks the same on every machine. */
export const drawReceipt = async (facts: ReceiptFacts): Promise<Buffer> => (await printReceipt(facts)).jpeg;

/** A receipt as it is drawn, with its words where they stand on the level paper, and where a box of that is on the picture. */
export async function printReceipt(facts: ReceiptFacts) {
  const ink = facts.style === 'slip' ? slip(facts) : invoice(facts);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${ink.height}"><rect width="100%" height="100%" fill="${facts.style === 'slip' ? '#fbfaf6' : '#ffffff'}"/>${ink.body}</svg>`;
  const jpeg = await sharp(Buffer.from(svg))
    .rotate(facts.tilt, { background: '#8f8a80' })
    .jpeg({ quality: 80 })
    .toBuffer();
  return { jpeg, words: ink.words, place: tilted(facts.tilt, ink.height) };
}

/** Where a box of the level paper is on the picture of the tilted one; both as fractions. */
function tilted(degrees: number, height: number): (box: Box) => Box {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const wide = Math.abs(WIDTH * cos) + Math.abs(height * sin);
  const high = Math.abs(WIDTH * sin) + Math.abs(height * cos);
  return (box) => {
    const x = (box.x + box.width / 2 - 0.5) * WIDTH;
    const y = (box.y + box.height / 2 - 0.5) * height;
    const [w, h] = [(box.width * WIDTH) / wide, (box.height * height) / high];
    return {
      x: (x * cos - y * sin) / wide + 0.5 - w / 2,
      y: (x * sin + y * cos) / high + 0.5 - h / 2,
      width: w,
      height: h,
    };
  };
}

function slip(facts: ReceiptFacts) {
  const page = paper('slip');
  page.centre(facts.merchant.toUpperCase(), 24);
  page.centre(facts.place, 17);
  if (facts.taxNumber) page.centre(`Tax no. ${facts.taxNumber}`, 15);
  page.rule();
  page.pair(facts.date, '14:2' + (facts.total.length % 10), 17);
  page.rule();
  for (const [what, amount] of facts.rows) page.pair(what, amount, 17);
  page.rule();
  page.pair(`TOTAL ${facts.currency}`, facts.total, 23);
  page.pair('Paid', 'approved', 15);
  page.centre('Thank you', 17);
  return page.finish();
}

function invoice(facts: ReceiptFacts) {
  const page = paper('invoice');
  page.left(facts.merchant, 26);
  page.left(facts.place, 15);
  page.pair('Invoice', facts.date, 17);
  if (facts.taxNumber) page.pair('Tax number', facts.taxNumber, 15);
  page.rule();
  for (const [what, amount] of facts.rows) page.pair(what, amount, 17);
  page.rule();
  page.pair('Amount due', `${facts.currency} ${facts.total}`, 22);
  page.left('Received with thanks, balance 0', 14);
  return page.finish();
}

/** A sheet that fills from top to bottom. Long text shrinks to fit its line. */
function paper(style: keyof typeof fonts) {
  const [latin, extended] = fonts[style]();
  let y = 26;
  let outline = '';
  let rules = '';
  const runs: { text: string; x: number; y: number; size: number; long: number }[] = [];
  const fontFor = (char: string) => (latin!.charToGlyphIndex(char) > 0 ? latin! : extended!);
  const width = (text: string, size: number) => [...text].reduce((w, c) => w + fontFor(c).getAdvanceWidth(c, size), 0);
  const draw = (text: string, x: number, size: number) => {
    let at = x;
    runs.push({ text, x, y, size, long: width(text, size) });
    for (const char of text) {
      const font = fontFor(char);
      outline += shifted(glyph(font, char, size), at, y);
      at += font.getAdvanceWidth(char, size);
    }
  };
  const fit = (text: string, size: number, room: number) =>
    Math.min(size, (size * room) / Math.max(1, width(text, size)));
  const next = (size: number) => (y += size * 1.5);
  return {
    left(text: string, size: number) {
      next(size);
      draw(text, 30, fit(text, size, WIDTH - 60));
    },
    centre(text: string, size: number) {
      next(size);
      const fitted = fit(text, size, WIDTH - 60);
      draw(text, (WIDTH - width(text, fitted)) / 2, fitted);
    },
    pair(a: string, b: string, size: number) {
      next(size);
      const right = width(b, size);
      draw(a, 30, fit(a, size, WIDTH - 80 - right));
      draw(b, WIDTH - 30 - right, size);
    },
    rule() {
      y += 14;
      rules += `M30 ${y}H${WIDTH - 30}`;
    },
    finish: () => ({
      words: runs.flatMap((run) => wordsOfRun(run, Math.ceil(y + 50))),
      body: `<path fill="#23211e" d="${outline}"/><path stroke="#23211e" stroke-dasharray="5 3" d="${rules}"/>`,
      height: Math.ceil(y + 50),
    }),
  };
}

/** The words of a run of text, each where it stands on a paper of a height. */
function wordsOfRun(run: { text: string; x: number; y: number; size: number; long: number }, height: number): Word[] {
  const letter = run.long / Math.max(1, run.text.length);
  return [...run.text.matchAll(/\S+/g)].map((match) => ({
    text: match[0],
    page: 1,
    confidence: 100,
    box: {
      x: (run.x + match.index * letter) / WIDTH,
      y: (run.y - run.size * 0.8) / height,
      width: (match[0].length * letter) / WIDTH,
      height: run.size / height,
    },
  }));
}

const glyphs = new Map<string, opentype.PathCommand[]>();

/** The outline of a character at the origin, worked out once for a size. */
function glyph(font: opentype.Font, char: string, size: number): opentype.PathCommand[] {
  const key = `${font.names.fullName?.en}${char}${size}`;
  let path = glyphs.get(key);
  if (path === undefined) glyphs.set(key, (path = font.getPath(char, 0, 0, size).commands));
  return path;
}

function shifted(commands: opentype.PathCommand[], dx: number, dy: number): string {
  return commands
    .map(
      (c) =>
        c.type
        + pointsOf(c)
          .map((v, i) => (v + (i % 2 ? dy : dx)).toFixed(1))
          .join(' '),
    )
    .join('');
}

/** The points of a command in the order SVG writes them. */
function pointsOf(command: opentype.PathCommand): number[] {
  switch (command.type) {
    case 'C':
      return [command.x1, command.y1, command.x2, command.y2, command.x, command.y];
    case 'Q':
      return [command.x1, command.y1, command.x, command.y];
    case 'Z':
      return [];
    default:
      return [command.x, command.y];
  }
}

function lazy<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}
