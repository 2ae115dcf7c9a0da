import { signOf } from '../../../core/numbers/amount.ts';
import type { DivideLine } from '../../../contract/drafts.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { selectCharges } from '../../records/cards/cards.queries.ts';
import { lockChargesToFree } from '../../records/cards/charges.ts';
import type { LockedClaim, SeenClaim } from '../../records/claims/claimStore.ts';
import { selectClaim, updateClaim } from '../../records/claims/claims.queries.ts';
import type { VersionKey } from '../../records/claims/versionKey.ts';
import { clearParts, selectItems, selectLines, updateLine, type LineRow } from '../../records/claims/lines.queries.ts';
import { copyLine } from '../../records/claims/copyLine.ts';
import { divideCharge } from '../../records/claims/divideCharge.ts';
import { lastOf } from '../../records/claims/lineNumbers.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { selectChargeOfLine } from '../../records/claims/preparation.queries.ts';
import { touchClaims } from '../../records/claims/touchClaims.ts';

/**
 * Divides what one receipt shows over several lines: the line becomes the first part, each other one a line like it, on the
 * same receipt, with an amount and a category of its own. Of a charge the parts come to the line's amount; of own money
 * what is not claimed is simply left.
 */
export function divideLine(
  context: Context,
  actor: Actor,
  seen: SeenClaim,
  id: string,
  parts: DivideLine['parts'],
): Promise<void> {
  return inTransaction(context, async (trx) => {
    const charge = await chargeOf(trx, seen.number, id);
    const charges = charge === null ? [] : [charge];
    const made: string[] = [];
    const facts = () => ({ line: id, lines: made });
    await touchClaims(context, trx, { act: 'write', actor, claims: [seen], charges, facts }, async (claims) => {
      await lockChargesToFree(trx, charges);
      made.push(...(await divide(trx, claims.get(seen.number)!, id, parts)));
      const [whole] = charge === null ? [] : await selectCharges(trx, { ids: [charge] });
      if (whole) await divideCharge(trx, whole);
    });
  });
}

async function chargeOf(trx: Db, number: string, id: string): Promise<string | null> {
  const claim = await selectClaim(trx, number);
  return claim ? selectChargeOfLine(trx, { claim_id: claim.id, version: claim.version, id }) : null;
}

async function divide(trx: Db, { row, at }: LockedClaim, id: string, parts: DivideLine['parts']): Promise<string[]> {
  const line = (await selectLines(trx, at)).find((l) => l.id === id);
  if (!line) throw new Refused('not-found', { what: 'line' });
  const amounts = parts.map((p, i) => minorOf(p.amount, line.currency, `parts.${i}.amount`));
  const odd = amounts.findIndex((part) => part === 0n || signOf(part) !== signOf(line.amount));
  if (odd >= 0) throw invalid({ path: ['parts', odd, 'amount'], message: 'is not of the sign of the line' });
  await assertDivisible(trx, at, line, amounts);
  const last = lastOf(row.last_line, await selectLines(trx, at));
  const written = parts.map(({ category, description }, i) => ({
    ...{ category, description, amount: amounts[i]! },
    ...(category === line.category ? {} : NOTHING_ASKED),
  }));
  const [first, ...more] = written;
  // taxes and shares by amount were those of the whole
  await clearParts(trx, { ...at, id });
  for (const [i, part] of more.entries()) {
    const place = { id: String(last.number + 1 + i), position: last.position + 1 + i };
    await copyLine(trx, { ...at, id }, { ...place, ...part, before_pair: null });
  }
  await updateLine(trx, { ...at, id }, { ...first, quantity: null, journey: null, stay: null });
  await updateClaim(trx, row.id, { last_line: last.number + more.length });
  return more.map((_, i) => String(last.number + 1 + i));
}

/** What a line says of itself by its category; another category asks for something else. */
const NOTHING_ASKED = { nights: null, attendees: null, fields: '{}' };

async function assertDivisible(trx: Db, at: VersionKey, line: LineRow, amounts: readonly bigint[]): Promise<void> {
  const items = await selectItems(trx, at);
  if (line.personal || items.some((i) => i.line_id === line.id)) throw new Refused('not-divisible', { line: line.id });
  if (line.charge_id === null) return;
  const [charge] = await selectCharges(trx, { ids: [String(line.charge_id)] });
  const sum = amounts.reduce((a, part) => a + part, 0n);
  if (sum !== line.amount || charge?.currency !== line.currency) throw new Refused('parts-differ', { line: line.id });
}
