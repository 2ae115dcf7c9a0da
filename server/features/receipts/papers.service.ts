import type { Box } from '../../../core/evidence/reading/reading.types.ts';
import { receiptLifecycle } from '../../../core/workflow/lifecycles/gathering.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Actor, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { afterPreparing, inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Accepted } from '../../platform/outside/reading/reading.types.ts';
import type { Paper } from '../../platform/outside/reading/papers.ts';
import { Unreadable } from '../../platform/outside/unreadable.ts';
import {
  resetReading,
  selectMadeOf,
  selectPaper,
  selectReceipt,
  selectReceiptOf,
  updateReceipt,
  type ReceiptRecord,
} from '../../records/receipts/receipts.queries.ts';
import { touchClaims } from '../../records/claims/touchClaims.ts';
import { moveLinesToReceipt } from '../../records/claims/preparation.queries.ts';
import { lockReceipts } from '../../records/receipts/receiptFor.ts';
import { sha256Of, storeReceipt } from '../../records/receipts/storeReceipt.ts';
import { assertFree, receiptRecords, type SeenReceipt } from './receipts.store.ts';

/** Turns a page as its owner wants it to stand, and has the paper read again so. Evidence under review stays as it is. */
export function turnPage(
  services: Services,
  actor: Actor,
  seen: SeenReceipt,
  page: number,
  turns: number,
): Promise<void> {
  return inTransaction(services, (trx) =>
    perform(
      services,
      trx,
      { ...RECEIPTS, act: 'turn', key: seen.id, actor, revision: seen.revision },
      async ({ receipt }) => {
        assertFree(receipt);
        if (page < 1 || page > receipt.pages.length) throw new Refused('not-found', { what: 'page' });
        const told = receipt.pages.map((p, i) => (i === page - 1 ? turns : p.turns));
        await resetReading(trx, receipt.sha256, services.clock.now(), told);
        const jobs = [{ name: 'read-receipt' as const, data: { sha256: receipt.sha256 } }];
        return { result: undefined, columns: { turned: told }, facts: { page }, about: receipt.sha256, jobs };
      },
    ),
  );
}

/**
 * Makes one receipt of several: photographs of one paper, or a bill and its card slip, with their pages in that order. One
 * of them may be on a line in preparation, which then has the one that was made, with what was confirmed of it.
 */
export async function combineReceipts(services: Services, actor: Actor, seen: readonly SeenReceipt[]): Promise<bigint> {
  const [made] = await replace(services, actor, seen, async () => {
    const receipts = await ownReceipts(services.db, actor, seen);
    const papers = await Promise.all(receipts.map((r) => paperOf(services.db, r)));
    const name = `${receipts[0]!.name} and ${receipts.length - 1} more`;
    return [{ name, bytes: await readable(name, () => services.reader.combine(papers, actor.id)) }];
  });
  return made!;
}

/** How a receipt is divided: by the pages of a PDF, or by places on a picture. */
export type Division = { by: 'pages'; parts: number[][] } | { by: 'places'; places: Box[] };

/** Makes a receipt of each list of pages of a PDF, every page in one of them, or of each place on a picture. */
export const divideReceipt = (
  services: Services,
  actor: Actor,
  seen: SeenReceipt,
  division: Division,
): Promise<bigint[]> =>
  replace(services, actor, [seen], async () => {
    const [receipt] = await ownReceipts(services.db, actor, [seen]);
    assertUnused(receipt!);
    return division.by === 'pages'
      ? partsOf(services, actor, receipt!, division.parts)
      : placesOf(services, actor, receipt!, division.places);
  });

async function partsOf(
  services: Services,
  actor: Actor,
  receipt: ReceiptRecord,
  parts: number[][],
): Promise<MadeFile[]> {
  const { name, pages, kind } = receipt;
  if (kind !== 'pdf' || pages.length < 2) throw new Refused('receipt-one-page', { name });
  const wanted = parts.flat().sort((a, b) => a - b);
  if (parts.length < 2 || wanted.length !== pages.length || wanted.some((page, i) => page !== i + 1))
    throw new Refused('receipt-pages', { name, pages: pages.length, path: 'parts' });
  const paper = await paperOf(services.db, receipt);
  const made = await readable(name, () => services.reader.divide(paper, parts, actor.id));
  return made.map((bytes, i) => ({ name: `${name}, ${pagesSaid(parts[i]!)}`, bytes }));
}

async function placesOf(services: Services, actor: Actor, receipt: ReceiptRecord, places: Box[]): Promise<MadeFile[]> {
  const { name, kind } = receipt;
  if (kind !== 'picture') throw new Refused('receipt-no-picture', { name });
  const paper = await paperOf(services.db, receipt);
  const made = await readable(name, () => services.reader.cut(paper, places, actor.id));
  return made.map((bytes, i) => ({ name: `${name}, paper ${i + 1} of ${made.length}`, bytes }));
}

/**
 * Brings back a receipt that was taken away. One that something was made of comes back with what it was made of together,
 * and what was made is taken away; refused while that is on a claim.
 */
export function bringBackReceipt(services: Services, actor: Actor, id: bigint): Promise<void> {
  return inTransaction(services, async (trx) => {
    const receipt = await selectReceiptOf(trx, id);
    const made = receipt?.standing === 'replaced' ? await selectMadeOf(trx, id) : [];
    await lockReceipts(
      trx,
      made.map((m) => String(m.id)),
    );
    for (const one of made) await takeAway(services, trx, actor, one.id);
    const back = new Set([String(id), ...made.flatMap((m) => m.madeFrom)]);
    for (const one of back)
      await perform(
        services,
        trx,
        { ...RECEIPTS, act: 'bringBack', key: BigInt(one), actor, revision: null },
        async () => ({ result: undefined }),
      );
  });
}

const RECEIPTS = { lifecycle: receiptLifecycle, store: receiptRecords } as const;

const takeAway = (services: Services, trx: Db, actor: Actor, id: bigint): Promise<void> =>
  perform(services, trx, { ...RECEIPTS, act: 'remove', key: id, actor, revision: null }, async ({ receipt }) => {
    assertUnused(receipt);
    return { result: undefined };
  });

/** What is on a claim stays one paper. */
function assertUnused({ usedOn: [use] }: ReceiptRecord): void {
  if (use) throw new Refused('receipt-in-use', { claim: use.claim, state: use.state });
}

/** The receipts as they are now; somebody else's are not there. */
async function ownReceipts(db: Db, actor: Actor, seen: readonly SeenReceipt[]): Promise<ReceiptRecord[]> {
  const receipts: ReceiptRecord[] = [];
  for (const { id } of seen) {
    const receipt = await selectReceipt(db, id);
    if (receipt?.ownerId !== actor.id) throw new Refused('not-found', { what: 'receipt' });
    assertFree(receipt);
    receipts.push(receipt);
  }
  return receipts;
}

async function paperOf(db: Db, { id, kind, pages }: ReceiptRecord): Promise<Paper> {
  const file = (await selectPaper(db, id))!;
  return { ...file, kind, turns: pages.map((page) => page.turns) };
}

interface MadeFile {
  name: string;
  bytes: Buffer;
}

/** Stores what was made and puts it in the place of what it was made of, all or nothing. */
async function replace(
  services: Services,
  actor: Actor,
  seen: readonly SeenReceipt[],
  make: () => Promise<readonly MadeFile[]>,
): Promise<bigint[]> {
  const madeFrom = seen.map(({ id }) => String(id));
  const prepare = async () => {
    const accepted: (MadeFile & { file: Accepted })[] = [];
    for (const file of await make()) accepted.push({ ...file, file: await inspected(services, actor, file) });
    return accepted;
  };
  return afterPreparing(services, prepare, async (trx, accepted) => {
    const uses = await usesOf(trx, seen);
    const claims = [...new Set(uses.map((use) => use.claim))].map((number) => ({ number, revision: null }));
    const facts = () => ({ lines: uses.map((use) => `${use.claim}/${use.line}`) });
    return touchClaims(services, trx, { act: 'pair', actor, claims, charges: [], facts }, async () => {
      await lockReceipts(trx, madeFrom);
      const confirmed = await replaceEach(services, trx, actor, seen, { by: accepted.length, claims });
      const made: bigint[] = [];
      for (const { name, bytes, file } of accepted) {
        const paper = { name, cameIn: null, bytes, sha256: sha256Of(bytes), file, madeFrom };
        made.push((await storeReceipt(services, trx, { owner: actor.id, actor }, paper)).id);
      }
      if (confirmed) await moveToMade(trx, confirmed, made[0]!);
      return made;
    });
  });
}

const usesOf = async (trx: Db, seen: readonly SeenReceipt[]) =>
  (await Promise.all(seen.map(({ id }) => selectReceipt(trx, id)))).flatMap((receipt) => receipt?.usedOn ?? []);

/** Puts each of them aside; the one that is on a line, if one is. */
async function replaceEach(
  services: Services,
  trx: Db,
  actor: Actor,
  seen: readonly SeenReceipt[],
  { by, claims }: { by: number; claims: readonly { number: string }[] },
): Promise<ReceiptRecord | null> {
  let used: ReceiptRecord | null = null;
  for (const { id, revision } of seen)
    await perform(services, trx, { ...RECEIPTS, act: 'replace', key: id, actor, revision }, async ({ receipt }) => {
      assertFree(receipt);
      const [use] = receipt.usedOn;
      // A line has one paper; and a claim it was put on since it was looked at is not held, so nothing of that may change.
      if (use && (by > 1 || !claims.some((claim) => claim.number === use.claim))) assertUnused(receipt);
      if (use && used) throw new Refused('receipts-in-use', { claim: use.claim });
      if (use) used = receipt;
      return { result: undefined, facts: { by } };
    });
  return used;
}

/** A line that had one of the papers has what was made of them, and what its owner confirmed stays confirmed. */
async function moveToMade(trx: Db, from: ReceiptRecord, to: bigint): Promise<void> {
  const { amount, currency, date, merchant, taxNumber, cardDigits, taxes, confirmedAt } = from;
  const facts = { amount, currency, date, merchant, tax_number: taxNumber, card_digits: cardDigits };
  if (confirmedAt)
    await updateReceipt(trx, to, {
      ...facts,
      taxes: JSON.stringify(taxes),
      confirmed_at: confirmedAt,
      state: 'confirmed',
    });
  await moveLinesToReceipt(trx, from.id, to);
}

async function inspected(services: Services, actor: Actor, { name, bytes }: MadeFile): Promise<Accepted> {
  const file = await services.reader.inspect(bytes, actor.id);
  if (!file.ok) throw new Refused('receipt-not-read', { name, reason: file.reason });
  return file as Accepted;
}

async function readable<T>(name: string, make: () => Promise<T>): Promise<T> {
  try {
    return await make();
  } catch (error) {
    throw error instanceof Unreadable ? new Refused('receipt-not-read', { name, reason: error.message }) : error;
  }
}

/** "page 3", "pages 1 to 2", "pages 1, 4". */
function pagesSaid(pages: readonly number[]): string {
  if (pages.length === 1) return `page ${pages[0]}`;
  const inRow = pages.every((page, i) => i === 0 || page === pages[i - 1]! + 1);
  return `pages ${inRow ? `${pages[0]} to ${pages.at(-1)}` : pages.join(', ')}`;
}
