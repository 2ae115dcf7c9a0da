import type { Assessment } from '../documents/assessment.schema.ts';
import { fromMinor, sumKnown, toMinor } from '../numbers/amount.ts';

/** What an assessed record charges to a code, as a decimal string of the ledger's currency; null where it cannot be computed. */
export interface CodeCharge {
  dimension: string;
  code: string;
  amount: string | null;
}

/**
 * What the shares of an assessed record charge to each code of these dimensions: their cost, tax that is reclaimed left out,
 * private parts too. By dimension and code. Example: 100.00 split half to project P-1 and half to P-2 → 50.00 each.
 */
export function chargedCodes(
  { lines }: Pick<Assessment, 'lines'>,
  dimensions: readonly string[],
  ledgerCurrency: string,
): CodeCharge[] {
  const shares = lines.flatMap((l) => l.parts.filter((p) => !p.personal).flatMap((p) => p.shares));
  const charges = new Map<string, { dimension: string; code: string; costs: (bigint | null)[] }>();
  for (const share of shares)
    for (const dimension of dimensions) {
      const code = share.coding[dimension];
      if (code === undefined) continue;
      const key = `${dimension} ${code}`;
      const charge = charges.get(key) ?? { dimension, code, costs: [] };
      charge.costs.push(share.ledgerCost === null ? null : toMinor(share.ledgerCost, ledgerCurrency));
      charges.set(key, charge);
    }
  return [...charges.entries()]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, { dimension, code, costs }]) => {
      const sum = sumKnown(costs);
      return { dimension, code, amount: sum === null ? null : fromMinor(sum, ledgerCurrency) };
    });
}

/**
 * What an assessed record costs the organisation in all, whoever paid, private parts left out; a decimal string of the
 * record's currency, null where a part cannot be computed. Example: 100.00 own, 30.00 by card, 5.00 of it private → "125.00".
 */
export function totalCost({ lines }: Pick<Assessment, 'lines'>, currency: string): string | null {
  const parts = lines.flatMap((l) => l.parts.filter((p) => !p.personal));
  const sum = sumKnown(parts.map((p) => (p.claimAmount === null ? null : toMinor(p.claimAmount, currency))));
  return sum === null ? null : fromMinor(sum, currency);
}
