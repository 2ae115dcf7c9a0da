import type { AppliedAdvance, LineFigures, OpenCase } from '../figures.types.ts';
import { referenceConverter } from '../currency/converter.ts';
import type { Advance } from '../../documents/case.schema.ts';
import { toMinor } from '../../numbers/amount.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';

/** What of an own line no advance has covered yet: in its own currency and in the claim's, minor units. */
export interface Uncovered {
  currency: string;
  amount: bigint;
  claimAmount: bigint;
}

/**
 * The own lines an advance in their currency can cover: those with a positive amount, in line order. Example: own
 * 20.00, card 30.00, own -5.00 → the first alone.
 */
export function uncoveredLines(lines: readonly LineFigures[]): Uncovered[] {
  return lines
    .filter(({ line, amount }) => line.paidBy === 'own' && amount > 0n)
    .map(({ line, amount, claimAmount }) => ({ currency: line.currency, amount, claimAmount: claimAmount! }));
}

/** `rateMissing` when the advance's currency had to be converted and no rate was there. */
export interface AdvanceResult {
  figures: AppliedAdvance;
  rateMissing: boolean;
}

interface Step {
  claim: bigint;
  part: bigint;
}

/**
 * Applies one advance to what is due and not yet covered (claim currency, minor units). Money spent in the advance's
 * own currency counts unit for unit against the lines in that currency; what is left of it converts at the posting
 * date's published rate. Changes `lines` to what then remains uncovered. Example: 100.00 open, 62.56 due → 62.56 used,
 * 37.44 left.
 */
export function applyAdvance(
  open: OpenCase,
  advance: Advance,
  upTo: bigint | null,
  due: bigint,
  lines: Uncovered[],
): AdvanceResult {
  const outstanding = toMinor(advance.outstanding, advance.currency);
  const room = max0(upTo !== null && upTo < due ? upTo : due);
  const inKind =
    advance.currency === open.claimCurrency ? NOTHING : coverInKind(advance.currency, lines, outstanding, room);
  const left = outstanding - inKind.part;
  const byRate = coverByRate(open, advance.currency, left, room - inKind.claim);
  if (byRate === null) return { figures: unknown(advance), rateMissing: true };
  const part = inKind.part + byRate.part;
  const figures = {
    advance,
    applied: inKind.claim + byRate.claim,
    part,
    ledgerPart: ledgerPartOf(advance, open.ledgerCurrency, part),
    left: outstanding - part,
  };
  return { figures, rateMissing: false };
}

/**
 * The ledger value of a part of an advance: all that is left of it with the last part, else in proportion, rounded
 * once. 42857n for 6000000n left: all 6000000n → 42857n, 3000000n → 21429n (21428.5 half away from zero).
 */
export function ledgerPartOf(advance: Advance, ledgerCurrency: string, part: bigint): bigint {
  const outstanding = toMinor(advance.outstanding, advance.currency);
  const ledger = toMinor(advance.ledgerOutstanding, ledgerCurrency);
  return part === outstanding ? ledger : roundHalfAway(ledger * part, outstanding);
}

const NOTHING: Step = { claim: 0n, part: 0n };
const max0 = (value: bigint): bigint => (value < 0n ? 0n : value);
const min = (a: bigint, b: bigint): bigint => (a < b ? a : b);

function coverInKind(currency: string, lines: Uncovered[], outstanding: bigint, room: bigint): Step {
  const sum = { claim: 0n, part: 0n };
  for (const line of lines) {
    if (line.currency !== currency) continue;
    const step = coverLine(line, outstanding - sum.part, room - sum.claim);
    sum.claim += step.claim;
    sum.part += step.part;
  }
  return sum;
}

function coverLine(line: Uncovered, left: bigint, room: bigint): Step {
  let part = min(line.amount, left);
  if (part === 0n) return NOTHING;
  let claim = part === line.amount ? line.claimAmount : roundHalfAway(line.claimAmount * part, line.amount);
  if (claim > room) {
    claim = room;
    part = min(part, roundHalfAway(line.amount * claim, line.claimAmount));
  }
  if (claim === 0n || part === 0n) return NOTHING;
  line.amount -= part;
  line.claimAmount -= claim;
  return { claim, part };
}

/** Null when a rate was needed and is missing. */
function coverByRate(open: OpenCase, currency: string, left: bigint, room: bigint): Step | null {
  if (left <= 0n || room <= 0n) return NOTHING;
  const available = referenceConverter(open.rates, currency, open.claimCurrency, open.case.postingDate).convert(left);
  if (available === null) return null;
  const claim = min(available, room);
  if (claim === 0n) return NOTHING;
  const part = claim === available ? left : min(left, roundHalfAway(left * claim, available));
  return part === 0n ? NOTHING : { claim, part };
}

/**
 * An advance whose application cannot be computed. Example: an advance in KES without a rate → used, left and its
 * ledger part null.
 */
export function unknown(advance: Advance): AppliedAdvance {
  return { advance, applied: null, part: null, ledgerPart: null, left: null };
}
