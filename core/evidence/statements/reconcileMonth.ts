import { fromMinor, toMinor } from '../../numbers/amount.ts';
import { addDays } from '../../numbers/isoDate.ts';

/** A charge of a card's month: what the bank took, and how much of it stands on claims, both in the card's currency. */
export interface MonthCharge {
  settled: string;
  accounted: boolean;
}
/** A statement of the month. Balances are from the holder's side: owing is negative. */
export interface MonthStatement {
  from: string;
  to: string;
  opening: string | null;
  closing: string | null;
}
/** The first and last day of the month, and today where the card is kept. */
export interface MonthDays {
  from: string;
  to: string;
  today: string;
}
export interface MonthProof {
  opening: string | null;
  closing: string | null;
  spent: string;
  /** closing − (opening − spent); null when no statement states balances. */
  difference: string | null;
  accounted: { count: number; amount: string };
  open: { count: number; amount: string };
  /** Why the month cannot be closed, in words; empty when it can. */
  problems: string[];
}

/**
 * Proves a card's month: the statements follow each other without a gap (each opens with what the one before closed
 * with), what was spent leads from the first opening to the last closing, and every charge is accounted for. A
 * statement that lies within the days of a longer one is left out of the chain. The month has ended, and statements cover
 * it from its first to its last day. Example: opening 0.00, closing -50.00,
 * charges of 20.00 and 30.00 → difference 0.00.
 */
export function reconcileMonth(
  currency: string,
  charges: readonly MonthCharge[],
  statements: readonly MonthStatement[],
  days: MonthDays,
): MonthProof {
  const total = (list: readonly MonthCharge[]) => list.reduce((a, c) => a + toMinor(c.settled, currency), 0n);
  const spent = total(charges);
  const done = charges.filter((c) => c.accounted);
  const open = charges.filter((c) => !c.accounted);
  const chain = chainOf(statements);
  const opening = chain[0]?.opening ?? null;
  const closing = chain.at(-1)?.closing ?? null;
  const difference =
    opening === null || closing === null ? null : toMinor(closing, currency) - (toMinor(opening, currency) - spent);
  const problems = [
    ...(days.today <= days.to ? [`the month ends on ${days.to}`] : []),
    ...gapsOf(chain),
    ...missingOf(chain, days),
    ...(difference === null ? ['no statement with balances covers the month'] : []),
    ...(difference ? [`the charges differ from the statements by ${fromMinor(difference, currency)} ${currency}`] : []),
    ...(open.length ? [`${open.length} ${open.length === 1 ? 'charge is' : 'charges are'} not accounted for`] : []),
  ];
  return {
    opening,
    closing,
    spent: fromMinor(spent, currency),
    difference: difference === null ? null : fromMinor(difference, currency),
    accounted: { count: done.length, amount: fromMinor(total(done), currency) },
    open: { count: open.length, amount: fromMinor(total(open), currency) },
    problems,
  };
}

function chainOf(statements: readonly MonthStatement[]): MonthStatement[] {
  const sorted = [...statements].sort((a, b) =>
    a.from === b.from ? (a.to > b.to ? -1 : 1) : a.from < b.from ? -1 : 1,
  );
  const chain: MonthStatement[] = [];
  for (const s of sorted) {
    const last = chain.at(-1);
    if (!last || s.from > last.to) chain.push(s);
  }
  return chain;
}

/** Days of the month that no statement covers, at its beginning and its end. */
function missingOf(chain: readonly MonthStatement[], { from, to }: MonthDays): string[] {
  const [first, last] = [chain[0], chain.at(-1)];
  if (!first || !last) return [];
  return [
    ...(first.from > from ? [`no statement covers ${from} to ${addDays(first.from, -1)}`] : []),
    ...(last.to < to ? [`no statement covers ${addDays(last.to, 1)} to ${to}`] : []),
  ];
}

function gapsOf(chain: readonly MonthStatement[]): string[] {
  return chain.slice(1).flatMap((s, i) => {
    const before = chain[i]!;
    return before.closing === s.opening
      ? []
      : [
          `the statement up to ${before.to} closes with ${before.closing}, the next from ${s.from} opens with ${s.opening}: one is missing between them`,
        ];
  });
}
