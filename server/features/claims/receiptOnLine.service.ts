import type { Actor, Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { LockedClaim, SeenClaim } from '../../records/claims/claimStore.ts';
import { selectLines, updateLine } from '../../records/claims/lines.queries.ts';
import { touchClaims } from '../../records/claims/touchClaims.ts';
import { lockReceipts, receiptFor } from '../../records/receipts/receiptFor.ts';

/** Puts a receipt of whoever acts on a line of a claim in preparation, in place of the one that was there. */
export function putReceipt(
  context: Context,
  actor: Actor,
  seen: SeenClaim,
  { line, receipt }: { line: string; receipt: string },
): Promise<void> {
  return inTransaction(context, (trx) => {
    const facts = () => ({ lines: [`${seen.number}/${line}`] });
    return touchClaims(context, trx, { act: 'pair', actor, claims: [seen], charges: [], facts }, async (claims) => {
      const { at } = claims.get(seen.number)!;
      if (!(await selectLines(trx, at)).some((l) => l.id === line)) throw new Refused('not-found', { what: 'line' });
      await putReceiptsOn(trx, actor, { number: seen.number, at }, [{ line, receipt }]);
    });
  });
}

/** Puts receipts of whoever acts on lines of a claim that is held. */
export async function putReceiptsOn(
  trx: Db,
  actor: Actor,
  { number, at }: { number: string; at: LockedClaim['at'] },
  papers: readonly { line: string; receipt: string }[],
): Promise<void> {
  await lockReceipts(
    trx,
    papers.map((paper) => paper.receipt),
  );
  for (const { line, receipt } of papers) {
    const found = await receiptFor(trx, actor, receipt, number);
    await updateLine(trx, { ...at, id: line }, { receipt_id: found.id });
  }
}
