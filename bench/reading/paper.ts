import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import opentype from 'opentype.js';
import sharp from 'sharp';

const require = createRequire(import.meta.url);
const FACES = {
  typewriter: 'courier-prime',
  sans: 'source-sans-3',
  mono: 'roboto-mono',
  serif: 'pt-serif',
  thermal: 'share-tech-mono',
  narrow: 'barlow-condensed',
} as const;
export type Face = keyof typeof FACES;
const loaded = new Map<Face, opentype.Font[]>();

function fontsOf(face: Face): opentype.Font[] {
  const found = loaded.get(face);
  if (found) return found;
  const fonts = ['latin', 'latin-ext'].flatMap((set) => {
    try {
      const bytes = readFileSync(
        require.resolve(`@fontsource/${FACES[face]}/files/${FACES[face]}-${set}-400-normal.woff`),
      );
      return [opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength))];
    } catch {
      return [];
    }
  });
  loaded.set(face, fonts);
  return fonts;
}

/** A sheet of paper that is written on with a face; measured in pixels. */
export class Paper {
  private shapes = '';
  y = 40;
  constructor(
    readonly width: number,
    readonly face: Face,
    private readonly ink = '#1c1c1c',
  ) {}

  text(text: string, x: number, size: number, align: 'left' | 'right' | 'middle' = 'left', y = this.y): void {
    const letters = [...text].map((letter) => {
      const fonts = fontsOf(this.face);
      const font =
        fonts.find((f) => f.charToGlyphIndex(letter) > 0)
        ?? fontsOf('sans').find((f) => f.charToGlyphIndex(letter) > 0)
        ?? fonts[0]!;
      return { letter, font, advance: font.getAdvanceWidth(letter, size) };
    });
    const long = letters.reduce((a, l) => a + l.advance, 0);
    let at = align === 'right' ? x - long : align === 'middle' ? x - long / 2 : x;
    for (const { letter, font, advance } of letters) {
      this.shapes += `<path fill="${this.ink}" d="${font.getPath(letter, at, y, size).toPathData(1)}"/>`;
      at += advance;
    }
  }
  down(by: number): void {
    this.y += by;
  }
  rule(style: 'line' | 'dots' | 'double' = 'line'): void {
    const dash = style === 'dots' ? ' stroke-dasharray="3 6"' : '';
    const at = this.y - 8;
    this.shapes += `<path stroke="${this.ink}" stroke-width="1.5"${dash} d="M20 ${at}H${this.width - 20}"/>`;
    if (style === 'double')
      this.shapes += `<path stroke="${this.ink}" stroke-width="1.5" d="M20 ${at + 5}H${this.width - 20}"/>`;
    this.y += 16;
  }
  box(x: number, y: number, width: number, height: number): void {
    this.shapes += `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="none" stroke="${this.ink}"/>`;
  }
  png(ground = '#ffffff'): Promise<Buffer> {
    const height = Math.ceil(this.y + 40);
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${this.width}" height="${height}"><rect width="100%" height="100%" fill="${ground}"/>${this.shapes}</svg>`;
    return sharp(Buffer.from(svg)).png().toBuffer();
  }
}
