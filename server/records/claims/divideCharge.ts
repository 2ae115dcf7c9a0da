import type { Db } from '../../platform/db/connect.ts';
import { magnitude } from '../../../core/numbers/amount.ts';
import { roundHalfAway } from '../../../core/numbers/roundHalfAway.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { ChargeRecord } from '../cards/cards.queries.ts';
import { updateLine } from './lines.queries.ts';
import { selectLinesOfCharge } from './preparation.queries.ts';

/**
 * Gives each line of a charge its part of what the bank took: with c the running sum of the lines, line k has
 * round(settled × c_k / amount) − round(settled × c_(k−1) / amount), so the parts add up to what was taken when nothing
 * of the charge is left. Lines of submitted claims come first and keep their part. Refused for a claim of another entity
 * than the card's. The caller holds the locks of every claim in preparation that has a line of the charge.
 */
export async function divideCharge(trx: Db, charge: ChargeRecord): Promise<void> {
  let sum = 0n;
  let before = 0n;
  for (const line of await selectLinesOfCharge(trx, charge.id)) {
    if (line.foreign) throw new Refused('other-entity', { card: charge.card, claim: line.number });
    const whole = line.currency !== charge.currency;
    sum += whole ? charge.amount : line.amount;
    const upTo = roundHalfAway(magnitude(charge.settledAmount) * sum, magnitude(charge.amount));
    if (line.preparing)
      await updateLine(
        trx,
        { claim_id: line.claim_id, version: line.version, id: line.id },
        { settled_amount: upTo - before, settled_currency: charge.settledCurrency, rate_kind: 'card' },
      );
    before = upTo;
  }
}
