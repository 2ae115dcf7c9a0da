import type { Claim, Line } from '../../../core/documents/case.schema.ts';
import { dailyAllowance } from '../../../core/figures/allowance/dailyAllowance.ts';
import { mileage } from '../../../core/figures/allowance/mileage.ts';
import { fromMinor, sumKnown, toMinor } from '../../../core/numbers/amount.ts';
import type { SharedBook } from '../../../core/documents/splitBook.ts';
import type { Db } from '../../platform/db/connect.ts';
import { currentBook } from '../book/sharedBook.ts';
import { type ClaimRow } from './claims.queries.ts';
import { restateLine, updateLine } from './lines.queries.ts';
import { drivenBefore } from './driven.ts';

/**
 * Gives the lines of a claim in preparation that carry a journey, or the days of a stay, the amounts these come to by the
 * book as it is, in the currency of their rates; and tells each journey what its person drove before. Lines
 * whose rate is missing keep what they had, and the assessment says so. Whether there were such lines.
 */
export async function computeLines(trx: Db, row: ClaimRow, claim: Claim): Promise<boolean> {
  const lines = claim.lines.filter((line) => line.journey || line.stay);
  if (lines.length === 0) return false;
  const { content: book } = await currentBook(trx, row.entity_id);
  const driven = await drivenBefore(trx, row, claim.lines);
  for (const line of lines) {
    const at = { claim_id: row.id, version: row.version, id: line.id };
    if (line.journey) {
      line.journey = { ...line.journey, before: driven[line.id]! };
      await updateLine(trx, at, { journey: JSON.stringify(line.journey) });
    }
    const money = moneyOf(line, book);
    if (!money || (money.amount === line.amount && money.currency === line.currency)) continue;
    await restateLine(trx, at, { amount: toMinor(money.amount, money.currency), currency: money.currency });
  }
  return true;
}

function moneyOf(line: Line, book: SharedBook): { amount: string; currency: string } | null {
  if (line.journey) return mileage({ ...line.journey, date: line.date }, book.mileageRates ?? []);
  const { days } = dailyAllowance(line.stay ?? [], book.allowanceRates ?? []);
  const currency = days[0]?.currency ?? null;
  if (currency === null) return null;
  const total = sumKnown(days.map((d) => (d.currency === currency ? toMinor(d.amount!, currency) : null)));
  return total === null ? null : { amount: fromMinor(total, currency), currency };
}
