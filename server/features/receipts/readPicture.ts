import { createHash } from 'node:crypto';
import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
import { Refused } from '../../http/refusal.ts';

/** A picture of a receipt: the original as it came, and a view of it without metadata, which is all that is ever shown. */
export interface Picture {
  sha256: string;
  original: Buffer;
  originalType: string;
  view: Buffer;
  viewType: 'image/webp';
  width: number;
  height: number;
}

const ACCEPTED = new Set(['image/jpeg', 'image/png', 'image/webp']);
const MAX_PIXELS = 80_000_000;
const VIEW_SIDE = 2400;

/**
 * Reads an uploaded file as a picture by its content, whatever its name or declared type. Refused with the reason when
 * it is empty, of another kind, damaged or too large to draw.
 */
export async function readPicture(name: string, original: Buffer): Promise<Picture> {
  const refuse = (reason: string) => new Refused('not-an-image', { name, reason });
  if (original.length === 0) throw refuse('the file is empty');
  const type = (await fileTypeFromBuffer(original))?.mime;
  if (!type || !ACCEPTED.has(type))
    throw refuse(`it is ${type ?? 'of no known kind'}; take a JPEG, PNG or WebP picture`);
  try {
    const { data, info } = await sharp(original, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
      .rotate()
      .resize({ width: VIEW_SIDE, height: VIEW_SIDE, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 82, effort: 1 })
      .toBuffer({ resolveWithObject: true });
    const sha256 = createHash('sha256').update(original).digest('hex');
    return {
      sha256,
      original,
      originalType: type,
      view: data,
      viewType: 'image/webp',
      width: info.width,
      height: info.height,
    };
  } catch (error) {
    throw refuse(/pixel limit/i.test(String(error)) ? 'it has more than 80 million pixels' : 'the picture is damaged');
  }
}
