import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Actor } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { ChargeRecord } from '../../records/cards/cards.queries.ts';
import { leftOf } from '../../records/cards/charges.ts';
import type { LockedClaim } from '../../records/claims/claimStore.ts';
import { updateClaim } from '../../records/claims/claims.queries.ts';
import { restateLine, selectLines, updateLine } from '../../records/claims/lines.queries.ts';
import { copyLine } from '../../records/claims/copyLine.ts';
import { lastOf } from '../../records/claims/lineNumbers.ts';
import { divideCharge } from '../../records/claims/divideCharge.ts';
import { paidBy, stateBefore } from './chargeOnLine.ts';
import { refOf, selectDraftLines, type DraftLine } from './gather.queries.ts';

/**
 * Parts a line among the charges it is the sum of: it keeps the first, and for each other one a line like it is added.
 * Each part remembers which line it is of, so that undoing makes one line of them again. The caller holds all locks.
 */
export async function partLine(
  trx: Db,
  claims: ReadonlyMap<string, LockedClaim>,
  line: DraftLine,
  charges: readonly ChargeRecord[],
): Promise<void> {
  assertSum(line, charges);
  const { row, at } = claims.get(line.number)!;
  const last = lastOf(row.last_line, await selectLines(trx, at));
  const [first, ...more] = charges as [ChargeRecord, ...ChargeRecord[]];
  await updateLine(trx, line, { ...paidBy(first), before_pair: JSON.stringify(stateBefore(line)) });
  await restateLine(trx, line, { amount: leftOf(first), currency: first.currency });
  for (const [i, charge] of more.entries()) {
    const place = { id: String(last.number + 1 + i), position: last.position + 1 + i };
    const part = { ...place, amount: leftOf(charge), ...paidBy(charge) };
    await copyLine(trx, line, { ...part, before_pair: JSON.stringify({ partOf: line.id }) });
  }
  await updateClaim(trx, row.id, { last_line: last.number + more.length });
  for (const charge of charges) await divideCharge(trx, charge);
}

/** Only what a charge has left, of charges that are on no line yet, can add up to a line without a charge. */
function assertSum(line: DraftLine, charges: readonly ChargeRecord[]): void {
  if (line.charge_id !== null) throw new Refused('pair-taken', { line: line.id, claim: line.number });
  const used = charges.find((c) => c.lines.length > 0);
  if (used) throw new Refused('charge-in-use', { merchant: used.merchant, state: `on claim ${used.lines[0]!.claim}` });
  const sum = charges.reduce((a, c) => a + c.amount, 0n);
  if (sum === line.amount && charges.every((c) => c.currency === line.currency)) return;
  throw new Refused('pair-differs', {
    who: 'The line says',
    said: `${fromMinor(line.amount, line.currency)} ${line.currency}`,
    takeable: false,
    left: fromMinor(sum, charges[0]!.currency),
    currency: charges[0]!.currency,
  });
}

/** The lines, and all parts of those among them that are parts of one, or were parted. */
export async function withParts(trx: Db, actor: Actor, lines: readonly DraftLine[]): Promise<DraftLine[]> {
  const wholeOf = (l: DraftLine) => `${l.number}/${String(l.before_pair?.partOf ?? l.id)}`;
  const wholes = new Set(lines.map(wholeOf));
  const named = new Set(lines.map(refOf));
  return (await selectDraftLines(trx, actor.id)).filter((l) => named.has(refOf(l)) || wholes.has(wholeOf(l)));
}
