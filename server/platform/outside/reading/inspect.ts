import { fileTypeFromBuffer } from 'file-type';
import phash from 'sharp-phash';
import sharp from 'sharp';
import { shownName } from '../../../../core/numbers/shownName.ts';
import { drawText, setText } from './drawText.ts';
import { readInvoice, setInvoice } from './eInvoice.ts';
import { parseMail, textOf } from './mail.ts';
import type { Accepted, FileKind, Inspected, PageView, Refusal } from './reading.types.ts';

const MOST_PIXELS = 80_000_000;
const VIEW_SIDE = 2400;
/** Attachments taken of one e-mail. */
export const MOST_PARTS = 20;
const PICTURES = new Set(['image/jpeg', 'image/png', 'image/webp']);
const HEIC = new Set(['image/heic', 'image/heif', 'image/heic-sequence']);
const TAKEN = 'take a JPEG, PNG, WebP or HEIC picture, a PDF, a saved e-mail or an e-invoice';

/**
 * Tells what a file is by its content, whatever its name says, and draws the views that are shown of it. Refused with a
 * reason that says what to do; nothing in the file is run, and nothing it points to is fetched.
 */
export async function inspect(bytes: Buffer): Promise<Inspected> {
  if (bytes.length === 0) return refused('the file is empty');
  const type = (await fileTypeFromBuffer(bytes))?.mime ?? 'unknown';
  if (PICTURES.has(type)) return inspectPicture(bytes, type);
  if (HEIC.has(type)) return inspectHeic(bytes, type);
  if (type === 'application/pdf') return inspectPdf(bytes);
  const head = bytes.subarray(0, 4096).toString('latin1');
  if (
    type === 'application/xml'
    || /^(?:\s*\xef\xbb\xbf)?\s*<\?xml|^\s*<[A-Za-z:]*(?:Invoice|CreditNote|CrossIndustryInvoice)\b/.test(head)
  )
    return inspectInvoice(bytes);
  if (looksLikeMail(head)) return inspectMail(bytes);
  return refused(type === 'unknown' ? `it is of no known kind; ${TAKEN}` : `it is ${type}; ${TAKEN}`);
}

const refused = (reason: string): Refusal => ({ ok: false, reason });
const looksLikeMail = (head: string): boolean =>
  /^(?:[\w-]+:[^\r\n]*(?:\r?\n[ \t][^\r\n]*)*\r?\n){2,}/.test(head)
  && /^(?:from|received|return-path|delivered-to|message-id|mime-version):/im.test(head);

/** The picture as pixels: HEIC is turned into JPEG, everything else is what it is. */
export async function toReadable(bytes: Buffer, type: string): Promise<Buffer> {
  if (!HEIC.has(type)) return bytes;
  const { default: convertHeic } = await import('heic-convert');
  const jpeg = await convertHeic({ buffer: new Uint8Array(bytes) as never, format: 'JPEG', quality: 0.92 });
  return Buffer.from(jpeg);
}

async function inspectHeic(bytes: Buffer, type: string): Promise<Inspected> {
  try {
    return await inspectPicture(await toReadable(bytes, type), type);
  } catch {
    return refused('the picture is damaged');
  }
}

async function inspectPicture(bytes: Buffer, type: string): Promise<Inspected> {
  try {
    const { width = 0, height = 0 } = await sharp(bytes, { limitInputPixels: false }).metadata();
    if (width * height > MOST_PIXELS)
      return refused(`it has ${width} × ${height} pixels and at most 80 million are accepted; take a smaller picture`);
    return accept(type, 'picture', [await viewOf(bytes)], await phash(bytes));
  } catch {
    return refused('the picture is damaged');
  }
}

async function viewOf(bytes: Buffer): Promise<PageView> {
  const { data, info } = await sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
    .rotate()
    .resize({ width: VIEW_SIDE, height: VIEW_SIDE, fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 82, effort: 1 })
    .toBuffer({ resolveWithObject: true });
  return { bytes: data, type: 'image/webp', width: info.width, height: info.height };
}

async function inspectPdf(bytes: Buffer): Promise<Inspected> {
  const { openPdf, drawPdf } = await import('./pdf.ts');
  const opened = await openPdf(bytes);
  if (!opened.ok) return opened;
  try {
    const pages = await drawPdf(opened.pdf);
    return accept('application/pdf', 'pdf', pages, await phash(pages[0]!.bytes));
  } catch {
    return refused('the PDF is damaged');
  } finally {
    await opened.pdf.destroy();
  }
}

async function inspectInvoice(bytes: Buffer): Promise<Inspected> {
  const read = readInvoice(bytes.toString('utf8'));
  if (!read.ok) return read;
  return accept('application/xml', 'invoice', await drawText(setInvoice(read.facts)), null);
}

/** A mail brings its attachments, and is a receipt itself where it says something. */
async function inspectMail(bytes: Buffer): Promise<Inspected> {
  const mail = await parseMail(bytes);
  const attached = mail.attachments
    .filter((a) => !a.related && a.content.length > 0)
    .map((a, i) => ({ name: shownName(a.filename ?? '') || `attachment ${i + 1}`, bytes: a.content }));
  const text = textOf(mail);
  const body = text === '' ? null : accept('message/rfc822', 'mail', await drawText(setText(text)), null);
  if (attached.length === 0) return body ?? refused('the e-mail holds neither text nor attachments');
  const beyond = attached.slice(MOST_PARTS).map((part) => part.name);
  return { ok: true, kind: 'parcel', parts: attached.slice(0, MOST_PARTS), beyond, body };
}

const accept = (type: string, kind: FileKind, pages: PageView[], bits: string | null): Accepted => ({
  ok: true,
  type,
  kind,
  pages,
  likeness: bits === null ? null : BigInt(`0b${bits}`).toString(16).padStart(16, '0'),
});
