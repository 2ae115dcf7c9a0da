import { readDocument } from '../../../../core/evidence/reading/readDocument.ts';
import { paidByCard } from '../../../../core/evidence/reading/paidByCard.ts';
import { seemSeveral } from '../../../../core/evidence/reading/seemSeveral.ts';
import { papersApart } from '../../../../core/evidence/reading/papersApart.ts';
import {
  FIELDS,
  type Field,
  type Found,
  type Reading,
  type Spot,
  type Word,
} from '../../../../core/evidence/reading/reading.types.ts';
import sharp from 'sharp';
import { Unreadable } from '../unreadable.ts';
import { setText } from './drawText.ts';
import { readingOfInvoice, readInvoice, setInvoice } from './eInvoice.ts';
import { toReadable } from './inspect.ts';
import { mailText } from './mail.ts';
import type { FileKind, ReadResult } from './reading.types.ts';
import type { PageRead } from './recognise.ts';

const SCAN_WIDTH = 1700;
/** A page with fewer words than this is a scan. */
const FEW_WORDS = 5;
/** How much of the time a file has may go by before another page is begun. */
const SHARE_OF_TIME = 0.6;
const USUAL_SECONDS = 90;

export interface FileToRead {
  kind: FileKind;
  type: string;
  bytes: Buffer;
  /** Today, ISO 8601. */
  asOf: string;
  /** Quarter turns clockwise of each page, where its owner turned it. */
  turned?: readonly number[] | null;
  /** After how many seconds it is given up. */
  seconds?: number;
  /** Languages besides those of Latin letters that a picture is tried in. */
  languages?: readonly string[];
}

/** Reads an accepted file: fields of e-invoices, text of PDFs and mails, recognised words of pictures and scans. */
export async function readFile(file: FileToRead): Promise<ReadResult> {
  const { kind, bytes, asOf } = file;
  switch (kind) {
    case 'picture':
      return readPicture(file);
    case 'pdf':
      return readPdf(file);
    case 'invoice': {
      const read = readInvoice(bytes.toString('utf8'));
      if (!read.ok) throw new Unreadable(read.reason);
      return readingOfInvoice(read.facts, setInvoice(read.facts));
    }
    case 'mail':
      return {
        method: 'text',
        reading: readDocument(setText(await mailText(bytes)).words, asOf),
        remarks: [],
        turns: [],
      };
    default:
      return kind satisfies never;
  }
}

async function readPicture({ bytes, type, asOf, turned, languages }: FileToRead): Promise<ReadResult> {
  const pages = [await recognise(await toReadable(bytes, type), 1, turned?.[0], languages)];
  const read = withoutLetters(await fromPages(pages, asOf, 'recognised'), pages);
  return withPapersApart(read, pages, asOf, 'Divide it, so that each is a receipt of its own');
}

async function readPdf(file: FileToRead): Promise<ReadResult> {
  const { openPdf, xmlInside } = await import('./pdf.ts');
  const opened = await openPdf(file.bytes);
  if (!opened.ok) throw new Unreadable(opened.reason);
  const { pdf } = opened;
  try {
    const xml = await xmlInside(pdf);
    const invoice = xml === null ? null : readInvoice(xml);
    if (invoice?.ok) return readingOfInvoice(invoice.facts, null);
    const { pages, scans, unread } = await pagesOf(pdf, file);
    const method = scans ? 'recognised' : 'text';
    const read = withoutLetters(await fromPages(pages, file.asOf, method), pages);
    const result = scans ? withPapersApart(read, pages, file.asOf, 'Add each of them by itself') : read;
    return unread.length > 0 ? withoutPages(result, unread) : result;
  } finally {
    await pdf.destroy();
  }
}

type Pdf = Parameters<typeof import('./pdfWords.ts').readPdfPage>[0];

/** Every page by its text; those that have none are recognised, as many as there is time for. */
async function pagesOf(pdf: Pdf, { turned, languages, seconds = USUAL_SECONDS }: FileToRead) {
  const { readPdfPage } = await import('./pdfWords.ts');
  const pages: PageRead[] = [];
  for (let number = 1; number <= pdf.numPages; number += 1) pages.push(await readPdfPage(pdf, number));
  const scans = pages.flatMap((page, i) => (page.words.length < FEW_WORDS ? [i] : []));
  const end = Date.now() + seconds * 1000 * SHARE_OF_TIME;
  const unread: number[] = [];
  let upright = 0;
  for (const i of scans) {
    if (Date.now() >= end) {
      unread.push(i + 1);
      continue;
    }
    const { drawPage } = await import('./pdf.ts');
    const { png } = await drawPage(pdf, i + 1, SCAN_WIDTH);
    if (await isBlank(png)) continue;
    pages[i] = await recognise(png, i + 1, turned?.[i] ?? upright, languages);
    upright = pages[i].turns;
  }
  return { pages, scans: scans.some((i) => pages[i]!.words.length > 0), unread };
}

/** Whether a page shows nothing at all. */
async function isBlank(png: Buffer): Promise<boolean> {
  const { channels } = await sharp(png).greyscale().stats();
  return channels[0]!.stdev < 0.5;
}

const guess = <T extends Pick<Found, 'sure'>>(found: T | null): T | null => found && { ...found, sure: 'doubtful' };

/** Pages that nobody read may hold another total, so none of the figures is more than a guess. */
function withoutPages({ reading, ...rest }: ReadResult, unread: readonly number[]): ReadResult {
  const pages = unread.length === 1 ? `Page ${unread[0]} was` : `Pages ${unread[0]} to ${unread.at(-1)} were`;
  const says = `${pages} not read, because it takes too long. Look at the figures, or add the page with the total by itself.`;
  const taxes = reading.taxes.map((tax) => guess(tax)!);
  return { ...rest, reading: { ...reading, amount: guess(reading.amount), taxes }, remarks: [...rest.remarks, says] };
}

async function recognise(
  picture: Buffer,
  page: number,
  first: number | undefined,
  languages: readonly string[] | undefined,
): Promise<PageRead> {
  const recogniser = await import('./recognise.ts');
  return recogniser.recognise(picture, page, first, languages);
}

const hasWhatCounts = ({ amount, date }: Reading): boolean =>
  amount !== null && amount.sure !== 'doubtful' && date !== null;

async function every(pages: readonly PageRead[], look: (page: PageRead) => Promise<Word[]>): Promise<Word[]> {
  const words: Word[] = [];
  for (const page of pages) words.push(...(await look(page)));
  return words;
}

const cardOf = async (pages: readonly PageRead[], asOf: string): Promise<Found | null> =>
  readDocument(await every(pages, (page) => page.lookForCard()), asOf).cardDigits;

/** Read where rows are level, marked where they stand on the pages. What is missing is looked for once more. */
async function fromPages(pages: readonly PageRead[], asOf: string, method: ReadResult['method']): Promise<ReadResult> {
  const back = (spot: Spot | null): Spot | null =>
    spot && { page: spot.page, box: (pages[spot.page - 1] ?? pages[0]!).place(spot.box) };
  const first = readDocument(
    pages.flatMap((p) => p.words),
    asOf,
  );
  const enough = method === 'text' || hasWhatCounts(first);
  const figures = enough ? first : readDocument(await every(pages, (page) => page.lookAgain()), asOf);
  const cardDigits = figures.cardDigits ?? (await cardOf(pages, asOf));
  const paid = figures.paid ?? paidByCard(cardDigits);
  const reading = { ...figures, cardDigits, paid };
  return { method, reading: mapSpots(reading, back), remarks: [], turns: pages.map((page) => page.turns) };
}

const SEVERAL =
  'It seems to show more than one paper. Take a picture of each, or look at every figure; nothing that was read is sure.';

/** Where a page shows several papers, whose a figure is cannot be told: none is sure, and each paper's place is given. */
function withPapersApart(result: ReadResult, pages: readonly PageRead[], asOf: string, what: string): ReadResult {
  const apart = pages.flatMap(({ words, place }, i) =>
    (papersApart(words, asOf) ?? []).map((box) => ({ page: i + 1, box: place(box) })),
  );
  if (apart.length === 0) return pages.some(({ words }) => seemSeveral(words)) ? nothingSure(result, SEVERAL) : result;
  const where = pages.length === 1 ? 'It shows' : `Page ${apart[0]!.page} shows`;
  const says = `${where} ${apart.length} papers. ${what}; until then nothing that was read is sure.`;
  const guessed = nothingSure(result, says);
  return { ...guessed, reading: { ...guessed.reading, apart } };
}

/** Figures beside words that nobody could read may be anything. */
function withoutLetters(result: ReadResult, pages: readonly PageRead[]): ReadResult {
  const unread = pages.flatMap(({ letters }, i) => (letters ? [] : [i + 1]));
  if (unread.length === 0) return result;
  const whose = pages.length === 1 ? 'Its words' : `The words of page ${unread.join(', ')}`;
  return nothingSure(
    result,
    `${whose} could not be read: they are faint, or in a script that is not read here. Look at every figure, or type it.`,
  );
}

function nothingSure(result: ReadResult, says: string): ReadResult {
  const { reading } = result;
  const figures = Object.fromEntries(FIELDS.map((field) => [field, guess(reading[field])])) as Pick<Reading, Field>;
  const taxes = reading.taxes.map((tax) => guess(tax)!);
  return { ...result, reading: { ...reading, ...figures, taxes }, remarks: [...result.remarks, says] };
}

/** A reading with every spot moved. */
export function mapSpots(reading: Reading, back: (spot: Spot | null) => Spot | null): Reading {
  const moved = <T extends { spot: Spot | null }>(found: T | null): T | null =>
    found && { ...found, spot: back(found.spot) };
  return {
    amount: moved(reading.amount),
    currency: moved(reading.currency),
    date: moved(reading.date),
    merchant: moved(reading.merchant),
    taxNumber: moved(reading.taxNumber),
    cardDigits: moved(reading.cardDigits),
    ...(reading.bought && { bought: reading.bought.map((item) => ({ ...item, spot: back(item.spot) })) }),
    ...(reading.paid !== undefined && { paid: moved(reading.paid) }),
    ...(reading.apart && { apart: reading.apart.map((spot) => back(spot)!) }),
    taxes: reading.taxes.map((tax) => ({ ...tax, spot: back(tax.spot) })),
  };
}
