import { daysBetween } from '../numbers/isoDate.ts';

/** Money in the currency of an advance and in the ledger's, minor units of each. */
export interface BothWays {
  amount: bigint;
  ledger: bigint;
}
/** How an advance moved on its account; what a reversal undoes counts as what it undoes. */
export interface AdvanceMovement extends BothWays {
  by: 'advance payout' | 'claim' | 'advance returned';
}
/** paid out = accounted for + given back + open, in both currencies. */
export interface AdvanceStanding {
  paidOut: BothWays;
  accountedFor: BothWays;
  givenBack: BothWays;
  open: BothWays;
}

/**
 * Where an advance stands by the movements of its account, which are debits (positive) when it is paid out and credits when it
 * is accounted for or given back. 100.00 out, −60.00 by a claim, −40.00 returned → open 0.00.
 */
export function standingOf(movements: readonly AdvanceMovement[]): AdvanceStanding {
  const sum = (by: AdvanceMovement['by'] | null, sign: bigint): BothWays =>
    movements
      .filter((m) => by === null || m.by === by)
      .reduce((s, m) => ({ amount: s.amount + sign * m.amount, ledger: s.ledger + sign * m.ledger }), {
        amount: 0n,
        ledger: 0n,
      });
  return {
    paidOut: sum('advance payout', 1n),
    accountedFor: sum('claim', -1n),
    givenBack: sum('advance returned', -1n),
    open: sum(null, 1n),
  };
}

/** The ages of a register, in days since it was paid out, each to the last day of its span. */
export const AGES = ['0–30', '31–60', '61–90', 'over 90'] as const;
export type Age = (typeof AGES)[number];

/** In which span an advance is on a day. Paid out on 1 March, on 31 March → 30 days, "0–30"; on 1 April → "31–60". */
export function ageOf(paidOn: string, on: string): { days: number; span: Age } {
  const days = daysBetween(paidOn, on);
  return { days, span: days <= 30 ? '0–30' : days <= 60 ? '31–60' : days <= 90 ? '61–90' : 'over 90' };
}
