import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { PDFDocument, rgb, type PDFFont, type PDFPage } from 'pdf-lib';

/** A4 in points, with the margin around what is written. */
export const PAGE = { width: 595.28, height: 841.89, margin: 44 } as const;
const INNER = PAGE.width - 2 * PAGE.margin;
const INK = rgb(0.07, 0.2, 0.23);
const QUIET = rgb(0.36, 0.43, 0.45);

const SCRIPTS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese'] as const;
const WEIGHTS = { plain: 400, strong: 600 } as const;
type Weight = keyof typeof WEIGHTS;
/** What stands for a character that none of the fonts has. */
const UNKNOWN = '?';

interface Face {
  font: PDFFont;
  has: ReadonlySet<number>;
}
export interface TextStyle {
  size?: number;
  weight?: Weight;
  quiet?: boolean;
}
interface ParagraphStyle extends TextStyle {
  /** How far from the margin it begins, in points. */
  indent?: number;
}

/** A document that is written from the top of a page to its end, and on the next. Text of five scripts; of others a mark. */
export class Typesetter {
  private page!: PDFPage;
  private y = 0;
  private readonly document: PDFDocument;
  private readonly faces: Record<Weight, Face[]>;

  private constructor(document: PDFDocument, faces: Record<Weight, Face[]>) {
    this.document = document;
    this.faces = faces;
    this.nextPage();
  }

  static async begin(title: string): Promise<Typesetter> {
    const document = await PDFDocument.create();
    // loaded when the first cover sheet is set: it takes half a second of every start otherwise
    document.registerFontkit((await import('@pdf-lib/fontkit')).default);
    document.setTitle(title);
    const [plain, strong] = [await embed(document, WEIGHTS.plain), await embed(document, WEIGHTS.strong)];
    return new Typesetter(document, { plain, strong });
  }

  nextPage(): void {
    this.page = this.document.addPage([PAGE.width, PAGE.height]);
    this.y = PAGE.height - PAGE.margin;
  }

  /** Text over the whole width, broken between words. */
  paragraph(text: string, { indent = 0, ...style }: ParagraphStyle = {}): void {
    const width = INNER - indent;
    const before = indent > 0 ? [{ text: '', width: indent, ...style }] : [];
    for (const line of this.broken(text, width, style)) this.row([...before, { text: line, width, ...style }]);
  }

  /** One line of cells beside each other; what is wider than its cell is cut. Figures stand to the right. */
  row(cells: readonly (TextStyle & { text: string; width: number; right?: boolean })[]): void {
    const size = Math.max(...cells.map((c) => c.size ?? 9.5));
    this.space(size * 1.45);
    let x: number = PAGE.margin;
    for (const { text, width, right = false, ...style } of cells) {
      const shown = this.cut(text, width - 4, style);
      this.draw(shown, right ? x + width - 4 - this.widthOf(shown, style) : x, style);
      x += width;
    }
  }

  rule(): void {
    this.space(5);
    const line = { start: { x: PAGE.margin, y: this.y }, end: { x: PAGE.width - PAGE.margin, y: this.y } };
    this.page.drawLine({ ...line, thickness: 0.5, color: QUIET });
    this.space(3);
  }

  gap(points: number): void {
    this.y -= points;
  }

  /** A picture in what is left of the page, as large as fits. */
  async picture(jpeg: Uint8Array): Promise<void> {
    const image = await this.document.embedJpg(jpeg);
    const room = { width: INNER, height: this.y - PAGE.margin };
    const scale = Math.min(1, room.width / image.width, room.height / image.height);
    const [width, height] = [image.width * scale, image.height * scale];
    this.page.drawImage(image, { x: PAGE.margin + (INNER - width) / 2, y: this.y - height, width, height });
    this.y -= height;
  }

  /** The finished document, every page with the same words and its number at its foot. */
  async finish(foot: string): Promise<Uint8Array> {
    const pages = this.document.getPages();
    for (const [i, page] of pages.entries()) {
      this.page = page;
      this.y = PAGE.margin - 14;
      this.draw(foot, PAGE.margin, { size: 8, quiet: true });
      const count = `${i + 1} of ${pages.length}`;
      this.draw(count, PAGE.width - PAGE.margin - this.widthOf(count, { size: 8 }), { size: 8, quiet: true });
    }
    return this.document.save();
  }

  private space(points: number): void {
    if (this.y - points < PAGE.margin) this.nextPage();
    this.y -= points;
  }

  /** The text in runs of characters that one font has. */
  private runs(text: string, weight: Weight): { text: string; font: PDFFont }[] {
    const faces = this.faces[weight];
    const runs: { text: string; font: PDFFont }[] = [];
    for (const char of text) {
      const face = faces.find((f) => f.has.has(char.codePointAt(0)!));
      const shown = face ? { text: char, font: face.font } : { text: UNKNOWN, font: faces[0]!.font };
      const last = runs.at(-1);
      if (last?.font === shown.font) last.text += shown.text;
      else runs.push(shown);
    }
    return runs;
  }

  private draw(text: string, x: number, { size = 9.5, weight = 'plain', quiet = false }: TextStyle): void {
    let at = x;
    for (const run of this.runs(text, weight)) {
      this.page.drawText(run.text, { x: at, y: this.y, size, font: run.font, color: quiet ? QUIET : INK });
      at += run.font.widthOfTextAtSize(run.text, size);
    }
  }

  private widthOf(text: string, { size = 9.5, weight = 'plain' }: TextStyle): number {
    return this.runs(text, weight).reduce((a, run) => a + run.font.widthOfTextAtSize(run.text, size), 0);
  }

  private cut(text: string, width: number, style: TextStyle): string {
    if (this.widthOf(text, style) <= width) return text;
    const chars = [...text];
    while (chars.length > 0 && this.widthOf(`${chars.join('')}…`, style) > width) chars.pop();
    return `${chars.join('')}…`;
  }

  private broken(text: string, width: number, style: TextStyle): string[] {
    const lines: string[] = [];
    for (const word of text.split(/\s+/)) {
      const longer = [lines.at(-1), word].filter(Boolean).join(' ');
      if (lines.length > 0 && this.widthOf(longer, style) <= width) lines[lines.length - 1] = longer;
      else lines.push(word);
    }
    return lines;
  }
}

const resolve = createRequire(import.meta.url).resolve;
async function embed(document: PDFDocument, weight: number): Promise<Face[]> {
  const faces: Face[] = [];
  for (const script of SCRIPTS) {
    const file = resolve(`@fontsource/source-sans-3/files/source-sans-3-${script}-${weight}-normal.woff`);
    const font = await document.embedFont(await readFile(file), { subset: true });
    faces.push({ font, has: new Set(font.getCharacterSet()) });
  }
  return faces;
}
