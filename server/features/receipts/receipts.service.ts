import { createHash } from 'node:crypto';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { IN_PREPARATION } from '../../../core/workflow/lifecycles/claim.ts';
import { receiptLifecycle } from '../../../core/workflow/lifecycles/gathering.ts';
import type { Confirmation } from '../../../contract/gather.ts';
import { perform, performBirth } from '../../platform/acts/perform.ts';
import type { Outcome } from '../../platform/acts/acts.types.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { Unreadable } from '../../platform/outside/unreadable.ts';
import type { Accepted } from '../../platform/outside/reading/reading.types.ts';
import { today } from '../../platform/ports/clock.ts';
import {
  countWaiting,
  fileIsThere,
  insertFile,
  insertReading,
  insertReceipt,
  resetReading,
  selectClaimsWithFile,
  selectOwnReceipts,
  selectTwins,
  selectWaiting,
  storeFailure,
  storeReading,
  type ReceiptRecord,
  type Twin,
} from '../../records/receipts/receipts.queries.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { onlyClaim } from '../../records/claims/usesOf.ts';
import { receiptRecords, type LockedReceipt } from './receipts.store.ts';

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
  const file = known ? null : await services.reader.inspect(bytes, actor.id);
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
    if (receipt.fresh) await noteBirth(services, trx, actor, receipt.id, sha256);
    const turn = await turnOf(trx, actor, bytes);
    if (await insertReading(trx, sha256, now)) await services.jobs.ask(trx, 'read-receipt', { sha256 }, turn);
    return receipt;
  });
}

const TURN_MEGABYTES = 16;
/**
 * When a file is read among those that wait: everybody's first before anybody's second, and of the same turn the small
 * before the large, so that a hundred files of one person hold up nobody else. Example: two of theirs wait → −32 and less.
 */
async function turnOf(trx: Db, actor: Actor, bytes: Buffer): Promise<number> {
  const megabytes = Math.min(TURN_MEGABYTES - 1, Math.floor(bytes.length / 2 ** 20));
  return -((await countWaiting(trx, actor.id)) * TURN_MEGABYTES + megabytes);
}

const noteBirth = (context: Context, trx: Db, actor: Actor, id: bigint, sha256: string): Promise<void> =>
  performBirth(context, trx, { lifecycle: receiptLifecycle, act: 'add', actor, entity: null }, async () => ({
    id: String(id),
    state: 'added',
    result: undefined,
    about: sha256,
  }));

/** Reads a waiting file and keeps what was found; claims in preparation that use it are assessed again. Done already, it does nothing. */
export async function readReceipt(
  services: Pick<Services, 'db' | 'reader' | 'clock' | 'jobs'>,
  sha256: string,
): Promise<void> {
  const { db, reader, clock } = services;
  const file = await selectWaiting(db, sha256);
  if (!file) return;
  try {
    await storeReading(db, sha256, await reader.read({ ...file, asOf: today(clock) }), clock.now());
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
    await storeFailure(db, sha256, error.message, clock.now());
  }
  await tellClaims(services, sha256);
}

const tellClaims = ({ db, jobs }: Pick<Services, 'db' | 'jobs'>, sha256: string): Promise<void> =>
  inTransaction({ db }, async (trx) => {
    for (const claim of await selectClaimsWithFile(trx, sha256))
      await jobs.ask(trx, 'assess-claims', { key: onlyClaim(claim) });
  });

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
    id: String(r.id),
    revision: r.revision,
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
        id: t.ownerId === actor.id ? String(t.id) : null,
        name: t.ownerId === actor.id ? t.name : null,
        addedAt: t.addedAt,
      })),
  };
}

/** A receipt, as its owner saw it. */
export interface SeenReceipt {
  id: bigint;
  revision: number;
}

const actOn = (
  context: Context,
  actor: Actor,
  act: 'confirm' | 'readAgain' | 'remove' | 'bringBack',
  { id, revision }: SeenReceipt,
  work: (trx: Db, locked: LockedReceipt) => Promise<Outcome<void>>,
): Promise<void> =>
  inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      { lifecycle: receiptLifecycle, store: receiptRecords, act, key: id, actor, revision },
      (locked) => work(trx, locked),
    ),
  );

/** Evidence under review stays as it was submitted. */
function assertFree(receipt: ReceiptRecord): void {
  const used = receipt.usedOn.find((use) => !(IN_PREPARATION as readonly string[]).includes(use.state));
  if (used) throw new Refused('receipt-in-use', { claim: used.claim, state: used.state });
}

/** Keeps what the owner says the receipt shows, beside what was read. Claims in preparation that use it are assessed again. */
export function confirmReceipt(context: Context, actor: Actor, id: bigint, said: Confirmation): Promise<void> {
  return actOn(context, actor, 'confirm', { id, revision: said.revision }, async (_trx, { receipt }) => {
    assertFree(receipt);
    const columns = {
      amount: minorOf(said.amount, said.currency, 'amount'),
      currency: said.currency,
      date: said.date,
      merchant: said.merchant,
      tax_number: said.taxNumber || null,
      card_digits: said.cardDigits ?? null,
      taxes: JSON.stringify(said.taxes),
      confirmed_at: context.clock.now(),
    };
    const claims = [...new Set(receipt.usedOn.map((use) => use.claim))];
    const jobs = claims.map((claim) => ({ name: 'assess-claims' as const, data: { key: onlyClaim(claim) } }));
    return { result: undefined, columns, about: receipt.sha256, jobs };
  });
}

/** Takes a receipt away; its file and reading stay. */
export const removeReceipt = (context: Context, actor: Actor, seen: SeenReceipt): Promise<void> =>
  actOn(context, actor, 'remove', seen, async (_trx, { receipt }) => {
    const [use] = receipt.usedOn;
    if (use) throw new Refused('receipt-in-use', { claim: use.claim, state: use.state });
    return { result: undefined };
  });

/** Brings back a receipt that was taken away. */
export const bringBackReceipt = (context: Context, actor: Actor, id: bigint): Promise<void> =>
  inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      { lifecycle: receiptLifecycle, store: receiptRecords, act: 'bringBack', key: id, actor, revision: null },
      async () => ({ result: undefined }),
    ),
  );

/** Reads a receipt once more, for instance after a reading that failed. Evidence under review stays as it is. */
export const readAgain = (services: Services, actor: Actor, seen: SeenReceipt): Promise<void> =>
  actOn(services, actor, 'readAgain', seen, async (trx, { receipt }) => {
    assertFree(receipt);
    await resetReading(trx, receipt.sha256, services.clock.now());
    const jobs = [{ name: 'read-receipt' as const, data: { sha256: receipt.sha256 } }];
    return { result: undefined, about: receipt.sha256, jobs };
  });
