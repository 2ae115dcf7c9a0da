import { readDocument } from '../core/evidence/reading/readDocument.ts';
import type { Found, Reading } from '../core/evidence/reading/reading.types.ts';
import { mapSpots } from '../server/platform/outside/reading/readFile.ts';
import { addDays } from '../core/numbers/isoDate.ts';
import { toMinor } from '../core/numbers/amount.ts';
import type { Db } from '../server/platform/db/connect.ts';
import { createHash } from 'node:crypto';
import { inspect } from '../server/platform/outside/reading/inspect.ts';
import { insertFile, insertReading, insertReceipt, saveReading } from '../server/records/receipts/receipts.queries.ts';
import type { Accepted } from '../server/platform/outside/reading/reading.types.ts';
import type { ClaimSeed, LineSeed } from './claims/claim.types.ts';
import { printReceipt, type ReceiptFacts } from './drawReceipt.ts';
import { randomFrom, type Random } from './random.ts';

const TOGETHER = 6;
const PLACES: Record<string, string> = {
  IE: 'Co. Wexford, Ireland',
  PT: 'Aveiro, Portugal',
  JP: 'Kyushu, Japan',
  KE: 'Kwale, Kenya',
  GB: 'Kent, United Kingdom',
  US: 'Baltimore, USA',
  NO: 'Trondheim, Norway',
  BH: 'Manama, Bahrain',
};

/** Draws and stores the receipt of every line that has one; ids by "claim number/line index". */
export async function loadReceipts(db: Db, claims: readonly ClaimSeed[], day: string): Promise<Map<string, bigint>> {
  const random = randomFrom(77);
  const wanted = claims
    .flatMap((claim) => claim.lines.map((line, i) => ({ claim, line, key: `${claim.number}/${i}` })))
    .filter(({ line }) => line.receipt !== null);
  const jobs = wanted.map((w) => ({ ...w, facts: factsOf(w.claim, w.line, day, random) }));
  const ids = new Map<string, bigint>();
  for (let i = 0; i < jobs.length; i += TOGETHER) {
    const batch = jobs.slice(i, i + TOGETHER);
    const prints = await Promise.all(batch.map((job) => printReceipt(job.facts)));
    const pictures = prints.map((print) => print.jpeg);
    const files = await Promise.all(pictures.map(inspectPicture));
    for (const [k, job] of batch.entries()) {
      const reading = readingOf(prints[k]!, job.facts, day);
      const paper = { claimant: job.claim.claimant, facts: job.facts, bytes: pictures[k]!, file: files[k]!, reading };
      const id = await storePaper(db, paper);
      ids.set(job.key, id);
    }
  }
  return ids;
}

interface Paper {
  claimant: string;
  facts: ReceiptFacts;
  bytes: Buffer;
  file: Accepted;
  reading: Reading;
}
/** Stores a drawn receipt as its owner's, confirmed on the evening of its day, with what a reader finds on it. */
export async function storePaper(db: Db, { claimant, facts, bytes, file, reading }: Paper): Promise<bigint> {
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const at = (minute: string) => new Date(`${facts.date}T18:${minute}:00Z`);
  await insertFile(db, sha256, bytes, file);
  const { id } = await insertReceipt(db, {
    owner_id: claimant,
    sha256,
    added_at: at('00'),
    name: `${facts.merchant.toLowerCase().replace(/[^a-z]+/g, '-')}.jpg`,
    came_in: null,
  });
  await db('receipts').where({ id }).update(fieldsOf(facts));
  await insertReading(db, sha256, at('00'));
  await saveReading(db, sha256, { method: 'recognised', reading, remarks: [], turns: [] }, at('01'));
  return id;
}

export async function inspectPicture(bytes: Buffer): Promise<Accepted> {
  const file = await inspect(bytes);
  if (!file.ok || file.kind === 'parcel') throw new Error('a drawn receipt is a picture');
  return file;
}

export function factsOf(claim: ClaimSeed, line: LineSeed, day: string, random: Random): ReceiptFacts {
  const shown = line.receipt ?? {};
  const currency = shown.currency ?? line.currency ?? (line.country === 'JP' ? 'JPY' : 'EUR');
  const total = shown.amount ?? line.amount;
  const items = line.items?.map((item): [string, string] => [item.text, item.amount]) ?? [
    [line.text, total] as [string, string],
  ];
  const taxes = (line.tax ?? []).map((t): [string, string] => [`incl. tax ${t.code.split('-')[1]} %`, t.tax ?? '']);
  return {
    merchant: shown.merchant ?? line.merchant,
    place: PLACES[line.country] ?? line.country,
    date: addDays(addDays(day, -claim.daysAgo), shown.day ?? line.day),
    rows: [...items, ...taxes],
    total,
    currency,
    taxNumber:
      shown.taxNumber === null || !line.country
        ? null
        : `${line.country}${random.whole(1_000_000, 9_999_999)}${random.pick(['A', 'K', 'T', 'W'])}`,
    style: ['lodging', 'fee', 'hire', 'air'].includes(line.category ?? '') ? 'invoice' : 'slip',
    tilt: (random.next() - 0.5) * 3,
  };
}

/**
 * What a reader finds on the paper, and where. It is given the words as they were printed: recognising a hundred pictures
 * would take minutes. What it does not find as it was meant is left out, so that the demo's own faults stay the only ones.
 */
function readingOf(
  { words, place }: Awaited<ReturnType<typeof printReceipt>>,
  facts: ReceiptFacts,
  day: string,
): Reading {
  const read = mapSpots(readDocument(words, day), (spot) => spot && { page: 1, box: place(spot.box) });
  const meant = {
    amount: facts.total,
    currency: facts.currency,
    date: facts.date,
    merchant: facts.merchant,
    taxNumber: facts.taxNumber,
  };
  const as = (found: Found | null, value: string | null): Found | null =>
    found && value !== null && found.value.toLowerCase() === value.toLowerCase() ? { ...found, value } : null;
  return {
    amount: as(read.amount, meant.amount),
    currency: as(read.currency, meant.currency),
    date: as(read.date, meant.date),
    merchant: as(read.merchant, meant.merchant),
    taxNumber: as(read.taxNumber, meant.taxNumber),
    cardDigits: null,
    taxes: read.taxes,
    ...(read.bought && { bought: read.bought }),
    ...(read.paid !== undefined && { paid: read.paid }),
  };
}

const fieldsOf = (facts: ReceiptFacts) => ({
  amount: toMinor(facts.total, facts.currency),
  currency: facts.currency,
  date: facts.date,
  merchant: facts.merchant,
  tax_number: facts.taxNumber,
  state: 'confirmed',
  confirmed_at: new Date(`${facts.date}T18:05:00Z`),
});
