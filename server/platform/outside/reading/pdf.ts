import { createCanvas } from '@napi-rs/canvas';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import sharp from 'sharp';
import type { PageView } from './reading.types.ts';

const MOST_PAGES = 30;
const VIEW_WIDTH = 1100;
const VIEW_HEIGHT = 3000;
const require = createRequire(import.meta.url);
const assets = dirname(require.resolve('pdfjs-dist/package.json'));

export type OpenedPdf = { ok: true; pdf: PDFDocumentProxy } | { ok: false; reason: string };

/** Opens a PDF without running anything in it; the reason when it is locked, damaged, empty or too long. */
export async function openPdf(bytes: Uint8Array): Promise<OpenedPdf> {
  try {
    const pdf = await getDocument({
      data: new Uint8Array(bytes),
      isEvalSupported: false,
      enableXfa: false,
      useSystemFonts: false,
      standardFontDataUrl: `${join(assets, 'standard_fonts')}/`,
      cMapUrl: `${join(assets, 'cmaps')}/`,
      cMapPacked: true,
      verbosity: 0,
    }).promise;
    if (pdf.numPages > MOST_PAGES) {
      const reason = `it has ${pdf.numPages} pages and at most ${MOST_PAGES} are accepted; add only the pages of the receipt`;
      await pdf.destroy();
      return { ok: false, reason };
    }
    return { ok: true, pdf };
  } catch (error) {
    if ((error as Error).name === 'PasswordException')
      return { ok: false, reason: 'it is protected by a password; save it without one and add it again' };
    return { ok: false, reason: 'the PDF is damaged' };
  }
}

/** Every page as a picture. */
export async function drawPdf(pdf: PDFDocumentProxy): Promise<PageView[]> {
  const views: PageView[] = [];
  for (let number = 1; number <= pdf.numPages; number += 1) {
    const { png, width, height } = await drawPage(pdf, number, VIEW_WIDTH);
    const bytes = await sharp(png).webp({ quality: 80, effort: 1 }).toBuffer();
    views.push({ bytes, type: 'image/webp', width, height });
  }
  return views;
}

/** One page, `width` pixels wide (less where it would be too high), as a PNG. */
export async function drawPage(pdf: PDFDocumentProxy, number: number, width: number) {
  const page = await pdf.getPage(number);
  const natural = page.getViewport({ scale: 1 });
  const scale = Math.min(width / natural.width, VIEW_HEIGHT / natural.height);
  const viewport = page.getViewport({ scale });
  const canvas = createCanvas(Math.max(1, Math.ceil(viewport.width)), Math.max(1, Math.ceil(viewport.height)));
  const canvasContext = canvas.getContext('2d');
  await page.render({ canvas: canvas as never, canvasContext: canvasContext as never, viewport, background: '#ffffff' })
    .promise;
  page.cleanup();
  return { png: canvas.toBuffer('image/png'), width: canvas.width, height: canvas.height };
}

const INVOICE_FILES = /^(?:factur-x|zugferd-invoice|xrechnung|order-x|cii|ubl).*\.xml$/i;

/** The invoice a PDF carries inside (the file names of the hybrid formats of EN 16931), or null. */
export async function xmlInside(pdf: PDFDocumentProxy): Promise<string | null> {
  const files = (await pdf.getAttachments()) as Record<string, { filename: string; content: Uint8Array }> | null;
  const file = Object.values(files ?? {}).find((f) => INVOICE_FILES.test(f.filename));
  return file ? Buffer.from(file.content).toString('utf8') : null;
}
