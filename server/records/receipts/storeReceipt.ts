import { createHash } from 'node:crypto';
import { receiptLifecycle } from '../../../core/workflow/lifecycles/gathering.ts';
import { performBirth } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { Accepted } from '../../platform/outside/reading/reading.types.ts';
import { countWaiting, insertFile, insertReading, insertReceipt } from './receipts.queries.ts';

/** Whose receipts a file lands among, and who brought it; null when it came by mail. */
export interface Bringer {
  owner: string;
  actor: Actor | null;
}

export const sha256Of = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

export interface ToStore {
  name: string;
  cameIn: string | null;
  sha256: string;
  bytes: Buffer;
  /** Null when the same content is there already. */
  file: Accepted | null;
  /** The receipts whose pages it was made of. */
  madeFrom?: string[];
}

/** Keeps a file as a receipt of its owner's, and has it read. `fresh` is false when it was there. */
export async function storeReceipt(
  services: Context,
  trx: Db,
  { owner, actor }: Bringer,
  { name, cameIn, sha256, bytes, file, madeFrom = [] }: ToStore,
): Promise<{ id: bigint; fresh: boolean }> {
  const now = services.clock.now();
  if (file) await insertFile(trx, sha256, bytes, file);
  const receipt = await insertReceipt(trx, {
    owner_id: owner,
    sha256,
    added_at: now,
    name: name.slice(0, 200),
    came_in: cameIn?.slice(0, 200) ?? null,
    made_from: madeFrom,
  });
  if (receipt.fresh) await noteBirth(services, trx, actor, receipt.id, sha256);
  const turn = await turnOf(trx, owner, bytes);
  if (await insertReading(trx, sha256, now)) await services.jobs.ask(trx, 'read-receipt', { sha256 }, turn);
  return receipt;
}

const noteBirth = (services: Context, trx: Db, actor: Actor | null, id: bigint, sha256: string): Promise<void> =>
  performBirth(services, trx, { lifecycle: receiptLifecycle, act: 'add', actor, entity: null }, async () => ({
    id: String(id),
    state: 'added',
    result: undefined,
    facts: actor ? {} : { came: 'by mail' },
    about: sha256,
  }));

const TURN_MEGABYTES = 16;
/**
 * When a file is read among those that wait: everybody's first before anybody's second, and of the same turn the small
 * before the large, so that a hundred files of one person hold up nobody else. Example: two of theirs wait → −32 and less.
 */
async function turnOf(trx: Db, owner: string, bytes: Buffer): Promise<number> {
  const megabytes = Math.min(TURN_MEGABYTES - 1, Math.floor(bytes.length / 2 ** 20));
  return -((await countWaiting(trx, owner)) * TURN_MEGABYTES + megabytes);
}
