import sharp from 'sharp';
import type { Random } from '../../demo/random.ts';

/** What happens to a receipt between the printer and the camera. */
export const HARMS = ['none', 'turned', 'blurred', 'grey', 'crumpled', 'noisy', 'faint', 'squeezed'] as const;
export type Harm = (typeof HARMS)[number];

/** The picture as a telephone would send it: a JPEG with one kind of harm. */
export async function spoil(png: Buffer, harm: Harm, random: Random): Promise<Buffer> {
  const out = await harmed(png, harm, random);
  return sharp(out)
    .jpeg({ quality: harm === 'squeezed' ? 28 : 78 })
    .toBuffer();
}

async function harmed(png: Buffer, harm: Harm, random: Random): Promise<Buffer> {
  switch (harm) {
    case 'none':
    case 'squeezed':
      return png;
    case 'turned':
      return sharp(png)
        .rotate((random.next() - 0.5) * 16, { background: '#6d675e' })
        .toBuffer();
    case 'blurred':
      return sharp(png)
        .blur(0.9 + random.next() * 0.6)
        .toBuffer();
    case 'grey':
      return pixels(png, (value, x, y, w, h) => value * (0.45 + (0.4 * (x / w + y / h)) / 2));
    case 'crumpled':
      return crumple(png, random);
    case 'noisy':
      return pixels(png, (value) => value * 0.9 + (random.next() - 0.5) * 70);
    case 'faint':
      return pixels(png, (value) => 235 - (255 - value) * 0.42);
    default:
      return harm satisfies never;
  }
}

type Change = (value: number, x: number, y: number, width: number, height: number) => number;

async function pixels(png: Buffer, change: Change): Promise<Buffer> {
  const { data, info } = await sharp(png).greyscale().raw().toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  for (let i = 0; i < data.length; i += 1)
    data[i] = Math.max(0, Math.min(255, change(data[i]!, i % width, Math.floor(i / width), width, height)));
  return sharp(data, { raw: { width, height, channels: 1 } })
    .png()
    .toBuffer();
}

/** Creases throw shadows and push rows of pixels aside. */
async function crumple(png: Buffer, random: Random): Promise<Buffer> {
  const { data, info } = await sharp(png).greyscale().raw().toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  const creases = Array.from({ length: 5 }, () => ({
    a: random.next() * 2 - 1,
    b: random.next(),
    depth: 0.2 + random.next() * 0.2,
  }));
  const out = Buffer.alloc(data.length);
  const wave = 1 + random.next() * 1.5;
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      let light = 0.95;
      for (const { a, b, depth } of creases) {
        const off = Math.abs(x / width + a * (y / height - b) - b) * 14;
        if (off < 1) light -= depth * (1 - off);
      }
      const from = Math.round(y + wave * Math.sin(x / 40 + y / 90));
      const value = from >= 0 && from < height ? data[from * width + x]! : 255;
      out[y * width + x] = Math.max(0, Math.min(255, value * light));
    }
  }
  return sharp(out, { raw: { width, height, channels: 1 } })
    .png()
    .toBuffer();
}
