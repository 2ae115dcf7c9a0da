import sharp from 'sharp';
import type { Box } from '../../../../core/evidence/reading/reading.types.ts';
import { turnBoxBack } from './turns.ts';

/** A picture made ready to be read, and the way back: `place` turns a box of it into one of the original. */
export interface Straight {
  png: Buffer;
  width: number;
  height: number;
  place(box: Box): Box;
}

/** The short side, in pixels, of a picture whose letters are read best; signs of many strokes are read smaller. */
export const SHORT_SIDE = 1300;
export const SHORT_SIDE_OF_SIGNS = 800;
const LONG_SIDE = 3200;
const MOST_ZOOM = 3;
const TILT_SIDE = 700;
const MOST_TILT = 14;

/**
 * Evens out the light, takes out the tilt and brings letters to the size the recogniser reads best, on a short side of
 * so many pixels. @param reversed whether letters that are white on black are made black on white; what lies in deep shadow suffers from it
 */
export async function straighten(
  picture: Buffer,
  quarterTurns = 0,
  { side = SHORT_SIDE, reversed = false }: { side?: number; reversed?: boolean } = {},
): Promise<Straight> {
  const turned = await sharp(picture)
    .rotate(quarterTurns * 90)
    .greyscale()
    .png({ compressionLevel: 1 })
    .toBuffer();
  const { width = 1, height = 1 } = await sharp(turned).metadata();
  const zoom = Math.min(Math.max(side / Math.min(width, height), 0.2), MOST_ZOOM, LONG_SIDE / Math.max(width, height));
  const noisy = await isNoisy(turned);
  const clean = noisy ? await sharp(turned).blur(1.2).toBuffer() : turned;
  const size = { width: Math.round(width * zoom), height: Math.round(height * zoom) };
  const even = await toPng(await evenLight(clean, size, reversed), size, noisy);
  const tilt = await tiltOf(even);
  const straight = sharp(even).rotate(-tilt, { background: '#ffffff' });
  const { data, info } = await straight.png({ compressionLevel: 1 }).toBuffer({ resolveWithObject: true });
  const exact = { width: width * zoom, height: height * zoom };
  return { png: data, width: info.width, height: info.height, place: wayBack(info, exact, tilt, quarterTurns) };
}

const NOISE = 9;

/** Whether neighbouring pixels differ everywhere, also where there is no ink: the median of their differences is high. */
async function isNoisy(picture: Buffer): Promise<boolean> {
  const { data, info } = await sharp(picture).greyscale().raw().toBuffer({ resolveWithObject: true });
  const counts = new Uint32Array(256);
  let seen = 0;
  for (let i = info.width; i < data.length; i += 7) {
    counts[Math.abs(data[i]! - data[i - 1]!)]! += 1;
    seen += 1;
  }
  let below = 0;
  let middle = 0;
  while (below + counts[middle]! < seen / 2) below += counts[middle++]!;
  return middle >= NOISE;
}

/** Where the ground is darker than this part of the paper, letters are printed white on black. */
const REVERSED = 0.4;

/** Divides each pixel by the light around it: shadows and creases go, ink stays. */
async function evenLight(picture: Buffer, { width, height }: Size, reversed: boolean): Promise<Buffer> {
  const sized = await sharp(picture).resize(width, height, { kernel: 'cubic' }).toBuffer();
  const small = { width: Math.max(1, Math.round(width / 8)), height: Math.max(1, Math.round(height / 8)) };
  const light = await sharp(await sharp(sized).resize(small.width, small.height).median(5).blur(5).toBuffer())
    .resize(width, height, { fit: 'fill', kernel: 'cubic' })
    .greyscale()
    .raw()
    .toBuffer();
  const grey = await sharp(sized).greyscale().raw().toBuffer();
  const even = Buffer.alloc(grey.length);
  const dark = reversed ? paperOf(light) * REVERSED : 0;
  for (let i = 0; i < grey.length; i += 1) {
    const [ink, ground] = light[i]! < dark ? [255 - grey[i]!, 255 - light[i]!] : [grey[i]!, light[i]!];
    even[i] = Math.min(255, (ink * 240) / Math.max(ground, 24));
  }
  return even;
}

/** Ink made black and paper white: by what is darkest and lightest, or, of a noisy page, by how far its noise reaches. */
function toPng(even: Buffer, { width, height }: Size, noisy: boolean): Promise<Buffer> {
  const picture = sharp(noisy ? withoutNoise(even) : even, { raw: { width, height, channels: 1 } });
  const levelled = noisy ? picture : picture.sharpen({ sigma: 1.2 }).normalise({ lower: 1, upper: 80 });
  return levelled.png({ compressionLevel: 1 }).toBuffer();
}

/** How many times its usual distance from the paper's grey noise reaches at most. */
const REACH = 4;
/** Ink is at least this much darker than the darkest noise. */
const CONTRAST = 40;

/**
 * Of a noisy page nothing is ink that noise reaches, and the darkest is black: a few words on a wide page stay words, where
 * levels by percentage would make its noise black with them.
 */
function withoutNoise(even: Buffer): Buffer {
  const paper = percentile(even, 0.5);
  const usual = percentile(
    even.map((v) => Math.abs(v - paper)),
    0.5,
  );
  const white = paper - REACH * Math.max(usual, 1);
  const black = Math.min(percentile(even, 0.001), white - CONTRAST);
  return Buffer.from(even.map((v) => Math.max(0, Math.min(255, (255 * (v - black)) / (white - black)))));
}

/** The grey that this share of the pixels does not exceed. */
function percentile(pixels: Uint8Array, share: number): number {
  const counts = new Uint32Array(256);
  for (const value of pixels) counts[value]! += 1;
  let below = 0;
  let value = 0;
  while (value < 255 && below + counts[value]! < pixels.length * share) below += counts[value++]!;
  return value;
}

/** How light the paper is: nine of ten places are darker, or lie in shadow. */
const paperOf = (light: Buffer): number => percentile(light, 0.9);

/** The angle in degrees by which rows of text are turned (positive: clockwise), found where their profile is sharpest. */
async function tiltOf(picture: Buffer): Promise<number> {
  const { data, info } = await sharp(picture)
    .resize(TILT_SIDE, TILT_SIDE, { fit: 'inside' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const ink: number[] = [];
  const edge = 6;
  for (let y = edge; y < info.height - edge; y += 1)
    for (let x = edge; x < info.width - edge; x += 1) if (data[y * info.width + x]! < 140) ink.push(x, y);
  if (ink.length < 400) return 0;
  const coarse = best(range(-MOST_TILT, MOST_TILT, 1), ink, info.height);
  return best(range(coarse - 0.9, coarse + 0.9, 0.15), ink, info.height);
}

const range = (from: number, to: number, step: number): number[] =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => from + i * step);

function best(angles: readonly number[], ink: readonly number[], height: number): number {
  let winner = 0;
  let most = -1;
  for (const angle of angles) {
    const sharpness = profileSharpness(ink, Math.tan((angle * Math.PI) / 180), height);
    if (sharpness > most) [winner, most] = [angle, sharpness];
  }
  return winner;
}

/** How much neighbouring rows differ in ink when the picture is sheared by a slope. */
function profileSharpness(ink: readonly number[], slope: number, height: number): number {
  const rows = new Float64Array(height * 3);
  for (let i = 0; i < ink.length; i += 2) {
    const row = Math.round(ink[i + 1]! - ink[i]! * slope) + height;
    if (row >= 0 && row < rows.length) rows[row]! += 1;
  }
  let sum = 0;
  for (let i = 1; i < rows.length; i += 1) sum += (rows[i]! - rows[i - 1]!) ** 2;
  return sum;
}

interface Size {
  width: number;
  height: number;
}

/** Turns a box back by the tilt around the middle, then by the quarter turns. */
function wayBack(out: Size, size: Size, tilt: number, quarterTurns: number): (box: Box) => Box {
  const angle = (tilt * Math.PI) / 180;
  return (box) => {
    const x = (box.x + box.width / 2) * out.width - out.width / 2;
    const y = (box.y + box.height / 2) * out.height - out.height / 2;
    const cx = (x * Math.cos(angle) - y * Math.sin(angle) + size.width / 2) / size.width;
    const cy = (x * Math.sin(angle) + y * Math.cos(angle) + size.height / 2) / size.height;
    const w = (box.width * out.width) / size.width;
    const h = (box.height * out.height) / size.height;
    return turnBoxBack({ x: cx - w / 2, y: cy - h / 2, width: w, height: h }, quarterTurns);
  };
}
