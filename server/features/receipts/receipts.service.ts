import { createHash } from 'node:crypto';
import { fromMinor, readAmount } from '../../../core/numbers/amount.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Accepted } from '../../platform/outside/reading/reading.types.ts';
import { inTransaction } from '../claims/access.ts';
import {
  fileIsThere,
  insertFile,
  insertReading,
  insertReceipt,
  resetReading,
  selectOwnReceipts,
  selectReceipt,
  selectTwins,
  selectWaiting,
  storeFailure,
  storeReading,
  updateReceipt,
  type ReceiptRecord,
  type Twin,
} from './receipts.queries.ts';
import type { Confirmation } from './receipts.schema.ts';

/** What became of one file: a receipt, or a refusal by name with its reason. */
export type Added = { ok: true; name: string; id: bigint; fresh: boolean } | { ok: false; name: string; says: string };

/**
 * Adds a file, or, when it is a saved e-mail with attachments, each of those. What is good is kept whatever the others
 * are. Reading follows in the background, once for each content.
 */
export async function addFile(
  services: Services,
  actor: Actor,
  name: string,
  bytes: Buffer,
  cameIn: string | null = null,
): Promise<Added[]> {
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const known = bytes.length > 0 && (await fileIsThere(services.db, sha256));
  const file = known ? null : await services.reader.inspect(bytes);
  if (file && !file.ok)
    return [{ ok: false, name, says: new Refused('not-a-receipt', { name, reason: file.reason }).says }];
  if (file?.kind === 'parcel') {
    if (cameIn !== null)
      return [
        {
          ok: false,
          name,
          says: new Refused('not-a-receipt', { name, reason: 'it is an e-mail inside an e-mail; save it by itself' })
            .says,
        },
      ];
    const added: Added[] = [];
    for (const part of file.parts) added.push(...(await addFile(services, actor, part.name, part.bytes, name)));
    return added;
  }
  return [{ ok: true, name, ...(await store(services, actor, { name, cameIn, sha256, bytes, file })) }];
}

interface ToStore {
  name: string;
  cameIn: string | null;
  sha256: string;
  bytes: Buffer;
  /** Null when the same content is there already. */
  file: Accepted | null;
}

function store(services: Services, actor: Actor, { name, cameIn, sha256, bytes, file }: ToStore) {
  const now = services.clock.now();
  return inTransaction(services, async (trx) => {
    if (file) await insertFile(trx, sha256, bytes, file);
    const row = {
      owner_id: actor.id,
      sha256,
      added_at: now,
      name: name.slice(0, 200),
      came_in: cameIn?.slice(0, 200) ?? null,
    };
    const receipt = await insertReceipt(trx, row);
    if (await insertReading(trx, sha256, now)) await services.jobs.ask(trx, 'read-receipt', { sha256 });
    return receipt;
  });
}

/** Reads a waiting file and keeps what was found. Done already, it does nothing. */
export async function readReceipt(
  { db, reader, clock }: Pick<Services, 'db' | 'reader' | 'clock'>,
  sha256: string,
): Promise<void> {
  const file = await selectWaiting(db, sha256);
  if (!file) return;
  const asOf = clock.now().toISOString().slice(0, 10);
  try {
    await storeReading(db, sha256, await reader.read({ ...file, asOf }), clock.now());
  } catch (error) {
    await storeFailure(db, sha256, String((error as Error).message).slice(0, 300), clock.now());
  }
}

/** A person's receipts with what was read, what was confirmed, where they are used, and who added the same. */
export async function viewReceipts({ db }: Context, actor: Actor) {
  const receipts = await selectOwnReceipts(db, actor.id);
  const twins = await selectTwins(db, receipts);
  return { receipts: receipts.map((r) => writeReceipt(r, twins, actor)) };
}

function writeReceipt(r: ReceiptRecord, twins: readonly Twin[], actor: Actor) {
  const confirmed = r.confirmedAt
    ? {
        amount: r.amount === null ? null : fromMinor(r.amount, r.currency!),
        currency: r.currency,
        date: r.date,
        merchant: r.merchant,
        taxNumber: r.taxNumber,
        cardDigits: r.cardDigits,
        taxes: r.taxes,
      }
    : null;
  return {
    id: r.id,
    name: r.name,
    cameIn: r.cameIn,
    addedAt: r.addedAt,
    kind: r.kind,
    pages: r.pages,
    state: r.state ?? 'read',
    problem: r.problem,
    method: r.method,
    reading: r.reading,
    remarks: r.remarks ?? [],
    confirmed,
    usedOn: r.usedOn,
    alike: twins
      .filter((t) => t.ofId === r.id)
      .map((t) => ({
        exact: t.exact,
        own: t.ownerId === actor.id,
        id: t.ownerId === actor.id ? t.id : null,
        name: t.ownerId === actor.id ? t.name : null,
        addedAt: t.addedAt,
      })),
  };
}

/** The owner's receipt; to others it does not exist here. */
async function ownReceipt({ db }: Context, actor: Actor, id: bigint): Promise<ReceiptRecord> {
  const receipt = await selectReceipt(db, id);
  if (receipt?.ownerId !== actor.id) throw new Refused('not-found', { what: 'receipt' });
  return receipt;
}

const SETTLED_STATES = new Set(['draft', 'returned']);

/** Evidence under review stays as it was submitted. */
function assertFree(receipt: ReceiptRecord): void {
  const used = receipt.usedOn.find((use) => !SETTLED_STATES.has(use.state));
  if (used) throw new Refused('receipt-in-use', { claim: used.claim, state: used.state });
}

/** Keeps what the owner says the receipt shows, beside what was read. */
export async function confirmReceipt(context: Context, actor: Actor, id: bigint, said: Confirmation): Promise<void> {
  const receipt = await ownReceipt(context, actor, id);
  assertFree(receipt);
  const minor = readAmount(said.amount, said.currency);
  if (minor === null)
    throw new Refused('invalid', {
      problem: `"${said.amount}" does not have the decimals of ${said.currency}.`,
      path: 'amount',
    });
  await updateReceipt(context.db, id, {
    amount: minor,
    currency: said.currency,
    date: said.date,
    merchant: said.merchant,
    tax_number: said.taxNumber || null,
    card_digits: said.cardDigits ?? null,
    taxes: JSON.stringify(said.taxes),
    confirmed_at: context.clock.now(),
  });
}

/** Takes a receipt away, or brings it back; its file and reading stay. */
export async function removeReceipt(context: Context, actor: Actor, id: bigint): Promise<void> {
  const receipt = await ownReceipt(context, actor, id);
  const [use] = receipt.usedOn;
  if (use) throw new Refused('receipt-in-use', { claim: use.claim, state: use.state });
  await updateReceipt(context.db, id, { removed_at: context.clock.now() });
}

/** Reads a receipt once more, for instance after a reading that failed. */
export async function readAgain(services: Services, actor: Actor, id: bigint): Promise<void> {
  const { sha256 } = await ownReceipt(services, actor, id);
  await inTransaction(services, async (trx) => {
    await resetReading(trx, sha256, services.clock.now());
    await services.jobs.ask(trx, 'read-receipt', { sha256 });
  });
}
