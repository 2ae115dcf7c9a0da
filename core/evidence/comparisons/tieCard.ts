import type { Line } from '../../documents/case.schema.ts';
import { fromMinor, readAmount, toMinor } from '../../numbers/amount.ts';
import { compareDate, compareMerchant, same, signed } from './_lib/compare.ts';
import { fromComparisons } from './_lib/states.ts';
import type { ChargeEvidence, Comparison, Step, Tie } from './tie.types.ts';

/** A charge may be dated by the terminal or by the bank; three days are common practice. */
const DAYS = 3;

/**
 * Card charge with line: amount (of all lines that carry the charge, here and on other claims), currency, what the bank
 * took, date, merchant and card. A line paid by card without a charge is open; one not paid by card has nothing to
 * compare. Example: 20.00 claimed of a charge of 20.00 → tied; a line without a charge → open.
 */
export function tieCard(line: Line, charge: ChargeEvidence | null, sharing: readonly Line[]): Tie {
  const empty = { line: line.id, kind: 'card' as const, difference: null, comparisons: [], steps: [] };
  if (line.paidBy !== 'card') return { ...empty, state: 'none' };
  if (!charge) return { ...empty, state: 'open' };
  const comparisons = [
    compareAmount(sharing, charge),
    ...(takenAs(line, charge) === null ? [same('currency', line.currency, charge.currency)] : []),
    ...compareSettled(sharing, charge),
    compareDate(line.date, charge.purchasedOn, DAYS),
    compareMerchant(line.merchant ?? null, charge.merchant, true),
    ...(line.card ? [same('card', line.card, charge.card)] : []),
  ];
  return {
    ...fromComparisons(line.id, 'card', comparisons),
    difference: comparisons.find((c) => c.state === 'off')?.difference ?? null,
    steps: stepsOf(sharing, charge),
  };
}

/** What the card took of a line in a currency that the bank does not tell: of such a charge only this can be compared. */
function takenAs({ currency, rate }: Line, charge: ChargeEvidence): string | null {
  const foreign = currency !== charge.currency && charge.currency === charge.settled.currency;
  return foreign && rate?.kind === 'card' && rate.settled.currency === charge.currency ? rate.settled.amount : null;
}

function compareAmount(sharing: readonly Line[], charge: ChargeEvidence): Comparison {
  const { currency } = charge;
  const here = sharing.reduce((a, l) => {
    const stated = l.currency === currency ? l.amount : takenAs(l, charge);
    return a + ((stated && readAmount(stated, currency)) || 0n);
  }, 0n);
  const claimed = here + toMinor(charge.elsewhere, currency);
  const difference = claimed - toMinor(charge.amount, currency);
  return {
    fact: sharing.length > 1 || toMinor(charge.elsewhere, currency) !== 0n ? 'amount of all its lines' : 'amount',
    claimed: fromMinor(claimed, currency),
    evidence: charge.amount,
    difference: difference === 0n ? null : signed(fromMinor(difference, currency)),
    tolerance: '0',
    state: difference === 0n ? 'tied' : 'off',
  };
}

/** What the bank took, where all of the charge is on this claim and was taken in another currency. */
function compareSettled(sharing: readonly Line[], { settled, currency, elsewhere }: ChargeEvidence): Comparison[] {
  if (settled.currency === currency || toMinor(elsewhere, currency) !== 0n) return [];
  const parts = sharing.map((l) =>
    l.rate?.kind === 'card' && l.rate.settled.currency === settled.currency
      ? readAmount(l.rate.settled.amount, settled.currency)
      : null,
  );
  const known = parts.every((p) => p !== null);
  const claimed = known ? parts.reduce((a, p) => a + p!, 0n) : null;
  const difference = claimed === null ? null : claimed - toMinor(settled.amount, settled.currency);
  return [
    {
      fact: `taken by the bank, ${settled.currency}`,
      claimed: claimed === null ? null : fromMinor(claimed, settled.currency),
      evidence: settled.amount,
      difference: difference ? signed(fromMinor(difference, settled.currency)) : null,
      tolerance: '0',
      state: difference === null ? 'open' : difference === 0n ? 'tied' : 'off',
    },
  ];
}

function stepsOf(sharing: readonly Line[], charge: ChargeEvidence): Step[] {
  const elsewhere =
    toMinor(charge.elsewhere, charge.currency) === 0n
      ? []
      : [{ label: 'On other claims', value: `${charge.elsewhere} ${charge.currency}`, source: null }];
  if (sharing.length < 2 && elsewhere.length === 0) return [];
  return [
    ...sharing.map((l) => ({ label: `Line ${l.id}`, value: `${l.amount} ${l.currency}`, source: l.merchant ?? null })),
    ...elsewhere,
    { label: 'Charge', value: `${charge.amount} ${charge.currency}`, source: `booked ${charge.bookedOn}` },
  ];
}
