import { readDocument } from '../../../../core/evidence/reading/readDocument.ts';
import type { Reading, Spot, Word } from '../../../../core/evidence/reading/reading.types.ts';
import { setText } from './drawText.ts';
import { readingOfInvoice, readInvoice, setInvoice } from './eInvoice.ts';
import { Unreadable } from '../unreadable.ts';
import { mailText, toReadable } from './inspect.ts';
import type { FileKind, ReadResult } from './reading.types.ts';
import type { Recognised } from './recognise.ts';

const PAGES_READ = 5;
const PAGES_RECOGNISED = 3;
const SCAN_WIDTH = 1700;
/** A PDF with fewer words than this is a scan. */
const FEW_WORDS = 5;

export interface FileToRead {
  kind: FileKind;
  type: string;
  bytes: Buffer;
  /** Today, ISO 8601. */
  asOf: string;
}

/** Reads an accepted file: fields of e-invoices, text of PDFs and mails, recognised words of pictures and scans. */
export async function readFile({ kind, type, bytes, asOf }: FileToRead): Promise<ReadResult> {
  switch (kind) {
    case 'picture':
      return fromPictures([await recognise(await toReadable(bytes, type), 1)], asOf);
    case 'pdf':
      return readPdf(bytes, asOf);
    case 'invoice': {
      const read = readInvoice(bytes.toString('utf8'));
      if (!read.ok) throw new Unreadable(read.reason);
      return readingOfInvoice(read.facts, setInvoice(read.facts));
    }
    case 'mail':
      return fromWords('text', setText(await mailText(bytes)).words, asOf);
    default:
      return kind satisfies never;
  }
}

const fromWords = (method: ReadResult['method'], words: Word[], asOf: string): ReadResult => ({
  method,
  reading: readDocument(words, asOf),
  remarks: [],
});

async function readPdf(bytes: Buffer, asOf: string): Promise<ReadResult> {
  const { drawPage, openPdf, wordsOfPdf, xmlInside } = await import('./pdf.ts');
  const opened = await openPdf(bytes);
  if (!opened.ok) throw new Unreadable(opened.reason);
  const { pdf } = opened;
  try {
    const xml = await xmlInside(pdf);
    const invoice = xml === null ? null : readInvoice(xml);
    if (invoice?.ok) return readingOfInvoice(invoice.facts, null);
    const words = await wordsOfPdf(pdf, PAGES_READ);
    if (words.length >= FEW_WORDS) return fromWords('text', words, asOf);
    const seen: Recognised[] = [];
    for (let page = 1; page <= Math.min(pdf.numPages, PAGES_RECOGNISED); page += 1)
      seen.push(await recognise((await drawPage(pdf, page, SCAN_WIDTH)).png, page));
    return fromPictures(seen, asOf);
  } finally {
    await pdf.destroy();
  }
}

async function recognise(picture: Buffer, page: number): Promise<Recognised> {
  const recogniser = await import('./recognise.ts');
  return recogniser.recognise(picture, page);
}

const hasWhatCounts = ({ reading: { amount, date } }: ReadResult): boolean =>
  amount !== null && amount.sure !== 'doubtful' && date !== null;

async function lookAgain(pages: readonly Recognised[]): Promise<Word[]> {
  const words: Word[] = [];
  for (const page of pages) words.push(...(await page.lookAgain()));
  return words;
}

/** Read where rows are level, marked where they stand in the pictures. */
async function fromPictures(pages: readonly Recognised[], asOf: string): Promise<ReadResult> {
  const back = (spot: Spot | null): Spot | null =>
    spot && { page: spot.page, box: (pages[spot.page - 1] ?? pages[0]!).place(spot.box) };
  const first = fromWords(
    'recognised',
    pages.flatMap((p) => p.words),
    asOf,
  );
  const result = hasWhatCounts(first) ? first : fromWords('recognised', await lookAgain(pages), asOf);
  return { ...result, reading: mapSpots(result.reading, back) };
}

function mapSpots(reading: Reading, back: (spot: Spot | null) => Spot | null): Reading {
  const moved = <T extends { spot: Spot | null }>(found: T | null): T | null =>
    found && { ...found, spot: back(found.spot) };
  return {
    amount: moved(reading.amount),
    currency: moved(reading.currency),
    date: moved(reading.date),
    merchant: moved(reading.merchant),
    taxNumber: moved(reading.taxNumber),
    cardDigits: moved(reading.cardDigits),
    taxes: reading.taxes.map((tax) => ({ ...tax, spot: back(tax.spot) })),
  };
}
