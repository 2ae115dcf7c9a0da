import { degrees, PDFDocument, type PDFPage } from 'pdf-lib';
import sharp from 'sharp';
import type { Box } from '../../../../core/evidence/reading/reading.types.ts';
import { Unreadable } from '../unreadable.ts';
import { toReadable } from './inspect.ts';
import type { FileKind } from './reading.types.ts';

/** A file whose pages become part of another one. */
export interface Paper {
  kind: FileKind;
  type: string;
  bytes: Buffer;
  /** Pictures of its pages, for what has none of its own. */
  views: Buffer[];
  /** Quarter turns clockwise after which each page stands upright. */
  turns: number[];
}

/** Points of the width of a page made of a picture. */
const PAGE_WIDTH = 595;
const PICTURE_SIDE = 2400;
/** Pixels of the shorter side of a paper cut out of a picture, at least. */
const LEAST_SIDE = 40;
const MOST_BYTES = 15 * 1024 * 1024;

/** One PDF with the pages of several files, upright, in their order; the same files give the same bytes. */
export async function combinePapers(papers: readonly Paper[]): Promise<Buffer> {
  const made = await PDFDocument.create({ updateMetadata: false });
  for (const paper of papers) await appendPaper(made, paper);
  return saved(made);
}

/** For each list of page numbers, a PDF with these pages of the one given, upright. */
export async function dividePaper({ bytes, turns }: Pick<Paper, 'bytes' | 'turns'>, parts: readonly number[][]) {
  const source = await PDFDocument.load(bytes, { updateMetadata: false });
  const made: Buffer[] = [];
  for (const pages of parts) {
    const part = await PDFDocument.create({ updateMetadata: false });
    await copyPages(
      part,
      source,
      turns,
      pages.map((page) => page - 1),
    );
    made.push(await saved(part));
  }
  return made;
}

/** For each place on a picture, a picture of it alone, upright, as good as it was. */
export async function cutPicture(
  { bytes, type, turns }: Pick<Paper, 'bytes' | 'type' | 'turns'>,
  places: readonly Box[],
): Promise<Buffer[]> {
  const asTaken = await sharp(await toReadable(bytes, type))
    .rotate()
    .toBuffer({ resolveWithObject: true });
  const { width, height } = asTaken.info;
  return Promise.all(
    places.map((place) => {
      const [left, top] = [Math.floor(place.x * width), Math.floor(place.y * height)];
      const size = {
        width: Math.min(width - left, Math.ceil(place.width * width)),
        height: Math.min(height - top, Math.ceil(place.height * height)),
      };
      if (size.width < LEAST_SIDE || size.height < LEAST_SIDE)
        throw new Unreadable('a part of it is too small to be a paper');
      return sharp(asTaken.data)
        .extract({ left, top, ...size })
        .rotate(90 * (turns[0] ?? 0))
        .jpeg({ quality: 92 })
        .toBuffer();
    }),
  );
}

async function appendPaper(made: PDFDocument, paper: Paper): Promise<void> {
  if (paper.kind === 'pdf') {
    const source = await PDFDocument.load(paper.bytes, { updateMetadata: false });
    return copyPages(made, source, paper.turns, source.getPageIndices());
  }
  const pictures = paper.kind === 'picture' ? [await toReadable(paper.bytes, paper.type)] : paper.views;
  for (const [i, picture] of pictures.entries()) {
    const jpeg = await made.embedJpg(await upright(picture, paper.turns[i] ?? 0));
    const height = (jpeg.height * PAGE_WIDTH) / jpeg.width;
    made.addPage([PAGE_WIDTH, height]).drawImage(jpeg, { x: 0, y: 0, width: PAGE_WIDTH, height });
  }
}

async function copyPages(made: PDFDocument, source: PDFDocument, turns: readonly number[], pages: number[]) {
  const copies: PDFPage[] = await made.copyPages(source, pages);
  copies.forEach((copy, i) => {
    const turned = copy.getRotation().angle + 90 * (turns[pages[i]!] ?? 0);
    made.addPage(copy).setRotation(degrees(turned % 360));
  });
}

async function upright(picture: Buffer, turns: number): Promise<Buffer> {
  const asTaken = await sharp(picture).rotate().toBuffer();
  return sharp(asTaken)
    .rotate(turns * 90)
    .resize({ width: PICTURE_SIDE, height: PICTURE_SIDE, fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 88 })
    .toBuffer();
}

async function saved(made: PDFDocument): Promise<Buffer> {
  const bytes = Buffer.from(await made.save());
  if (bytes.length > MOST_BYTES) throw new Unreadable('together they are larger than 15 MB; combine fewer of them');
  return bytes;
}
