import type { Coding, Split } from '../../documents/case.schema.ts';
import { fromMinor, toMinor } from '../../numbers/amount.ts';
import { canonical } from '../../numbers/canonical.ts';
import { groupBy } from '../../numbers/groupBy.ts';

/** What was planned under one coding, as a decimal string in the currency of the claim. */
export interface Planned {
  amount: string;
  coding: Coding;
}

/**
 * A split in proportion to what was estimated under each coding, in the order of the estimates; its weights count the
 * currency. Null where the plan has one coding alone. Example: 120.00 and 80.00 of one coding, 100.00 of another → 200.00 : 100.00.
 */
export function splitByPlan(planned: readonly Planned[], currency: string): Split | null {
  const codings = [...groupBy(planned, ({ coding }) => canonical(coding)).values()];
  if (codings.length < 2) return null;
  const shares = codings.map((same) => ({
    coding: same[0]!.coding,
    value: fromMinor(
      same.reduce((sum, { amount }) => sum + toMinor(amount, currency), 0n),
      currency,
    ),
  }));
  return { by: 'weight', unit: currency, shares };
}
