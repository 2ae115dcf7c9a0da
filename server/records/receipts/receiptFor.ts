import { Refused } from '../../platform/http/refusal.ts';
import type { Actor } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectReceipt, type ReceiptRecord } from './receipts.queries.ts';

/** Holds receipts against everybody else who would use or remove them, in the order of their ids, until the transaction ends. */
export async function lockReceipts(trx: Db, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  await trx('receipts')
    .whereRaw('id = any(?::bigint[])', [[...ids]])
    .orderBy('id')
    .select('id')
    .forUpdate();
}

/**
 * A receipt of the actor's for a line of a claim. Refused when it is on another claim: a receipt is on one claim at a time,
 * whatever comes with it. The caller holds its lock.
 */
export async function receiptFor(trx: Db, actor: Actor, id: string, claim: string): Promise<ReceiptRecord> {
  const receipt = await selectReceipt(trx, BigInt(id));
  if (receipt?.ownerId !== actor.id) throw new Refused('not-found', { what: 'receipt' });
  const other = receipt.usedOn.find((use) => use.claim !== claim);
  if (other) throw new Refused('receipt-in-use', { claim: other.claim, state: other.state });
  return receipt;
}
