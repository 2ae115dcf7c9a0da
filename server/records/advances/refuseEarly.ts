import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectLeastOpen } from '../ledger/journals.queries.ts';

/** What an act takes of an advance, in minor units of its currency. */
export interface Taken {
  advance: string;
  currency: string;
  amount: bigint;
}

/** Refuses what would take more of an advance than is open of it on a day, or on a later one: nothing accounts for it before it was paid out. */
export async function refuseEarly(trx: Db, taken: readonly Taken[], date: string): Promise<void> {
  if (taken.length === 0) return;
  const least = await selectLeastOpen(
    trx,
    taken.map((t) => t.advance),
    date,
  );
  for (const { advance, currency, amount } of taken) {
    const open = least.get(advance) ?? 0n;
    if (amount > open)
      throw new Refused('advance-not-open', { advance, date, open: fromMinor(open, currency), currency, path: 'date' });
  }
}
