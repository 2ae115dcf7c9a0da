import { IN_PREPARATION } from '../../../core/workflow/lifecycles/claim.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { ReceiptState } from '../../../core/workflow/lifecycles/gathering.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import {
  lockReceipt,
  selectReceiptOf,
  updateReceipt,
  type ReceiptRecord,
} from '../../records/receipts/receipts.queries.ts';

export interface LockedReceipt extends LockedRecord<ReceiptState> {
  receipt: ReceiptRecord;
}

/** A receipt; to everybody but its owner it does not exist here. */
export const receiptRecords: RecordStore<ReceiptState, LockedReceipt, bigint> = {
  async lock(trx, id) {
    const state = await lockReceipt(trx, id);
    const receipt = state && (await selectReceiptOf(trx, id));
    if (!receipt) return undefined;
    const people = { owner: receipt.ownerId };
    return { id: String(id), name: receipt.name, state, entity: null, revision: receipt.revision, people, receipt };
  },
  save: (trx, { receipt }, changes) => updateReceipt(trx, receipt.id, changes),
  exists: ({ people }, actor) => people.owner === actor.id,
};

/** A receipt, as its owner saw it. */
export interface SeenReceipt {
  id: bigint;
  revision: number;
}

/** Evidence under review stays as it was submitted. */
export function assertFree(receipt: ReceiptRecord): void {
  const used = receipt.usedOn.find((use) => !(IN_PREPARATION as readonly string[]).includes(use.state));
  if (used) throw new Refused('receipt-in-use', { claim: used.claim, state: used.state });
}
