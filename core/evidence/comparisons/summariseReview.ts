import type { Assessment } from '../../documents/assessment.schema.ts';
import { magnitude, toMinor } from '../../numbers/amount.ts';
import { isLoose, type ShownTie } from './stateWithMark.ts';
import { TIE_KINDS, type Tie, type TieKind } from './tie.types.ts';

/** A claim as one row of a list. */
export interface ReviewSummary {
  /** Minor units of the claim's currency, negative when the person owes; null when it cannot be computed. */
  toPay: bigint | null;
  /** Ledger minor units of the lines that have a stop, or a comparison still to be dealt with. */
  atRisk: bigint;
  /** The worst state of each kind of comparison. */
  ties: Record<TieKind, ShownTie>;
  stops: number;
  asks: number;
  /** Every comparison is tied by itself, and nothing is said against it or waited for: it can be cleared with others. */
  clean: boolean;
  /** Sorts what deserves attention first: smaller comes earlier. What waits for an answer comes late, what is on hold last. */
  priority: number;
}

/** What a claim waits for, which moves it in a list of claims to go through. */
export interface Standing {
  onHold: boolean;
  /** Questions that were sent and not answered, and those that were. */
  waiting: number;
  answered: number;
  /** Somebody said that it is to be looked at by itself: it was put on hold, or drawn for a full look. */
  apart: boolean;
}
export const NOTHING_PENDING: Standing = { onHold: false, apart: false, waiting: 0, answered: 0 };

const WORST_FIRST: readonly ShownTie[] = ['off', 'open', 'waived', 'seen', 'tied', 'none'];
const RANK = Object.fromEntries(WORST_FIRST.map((state, i) => [state, i])) as Record<ShownTie, number>;
const MOST = 99;

/**
 * What a list shows of a claim, from its assessment and its comparisons with the states they have after what the reviewer
 * said. Stops weigh most, then an answer to what was asked, then what is off, then what is open; each counts to 99 at most.
 * Examples: nothing off → 0; one stop → −1,000,000; all questions answered → −995,000; a question not answered → 1; on hold → 2.
 */
export function summariseReview(
  { lines, settlement, findings }: Assessment,
  ties: readonly (Pick<Tie, 'line' | 'kind'> & { shown: ShownTie })[],
  { currency, ledgerCurrency, standing }: { currency: string; ledgerCurrency: string; standing: Standing },
): ReviewSummary {
  const count = (severity: string) => findings.filter((f) => f.severity === severity).length;
  const states = (state: ShownTie) => Math.min(ties.filter((t) => t.shown === state).length, MOST);
  const loose = ties.filter((t) => isLoose(t.shown)).map((t) => t.line);
  const stopped = findings.filter((f) => f.severity === 'stop').map((f) => f.line);
  const risky = new Set<string | null>([...loose, ...stopped]);
  const { due, payable, receivable } = settlement;
  const stops = count('stop');
  return {
    toPay: due === null ? null : toMinor(payable!, currency) - toMinor(receivable!, currency),
    atRisk: lines.filter((l) => risky.has(l.id)).reduce((a, l) => a + riskOf(l.ledgerAmount, ledgerCurrency), 0n),
    ties: worstOfEach(ties),
    stops,
    asks: count('ask'),
    clean:
      !standing.apart
      && standing.waiting === 0
      && findings.every((f) => f.severity === 'note')
      && ties.every((t) => t.shown === 'tied' || t.shown === 'none'),
    priority: priorityOf(standing, { stops, off: states('off'), open: states('open') }),
  };
}

function priorityOf(
  { onHold, waiting, answered }: Standing,
  { stops, off, open }: Record<'stops' | 'off' | 'open', number>,
) {
  if (onHold) return 2;
  if (waiting > 0) return 1;
  const weight = Math.min(stops, MOST) * 1_000_000 + (answered > 0 ? 995_000 : 0) + off * 10_000 + open * 100;
  return 0 - weight;
}

const riskOf = (amount: string | null, currency: string): bigint =>
  amount === null ? 0n : magnitude(toMinor(amount, currency));

function worstOfEach(ties: readonly { kind: TieKind; shown: ShownTie }[]): Record<TieKind, ShownTie> {
  const worst = Object.fromEntries(TIE_KINDS.map((kind) => [kind, 'none'])) as Record<TieKind, ShownTie>;
  for (const { kind, shown } of ties) if (RANK[shown] < RANK[worst[kind]]) worst[kind] = shown;
  return worst;
}
