import type { Assessment } from '../../documents/assessment.schema.ts';
import type { Claim } from '../../documents/case.schema.ts';
import { fromMinor, sumKnown, toMinor } from '../../numbers/amount.ts';

/** The settlement as a sum that can be read aloud, decimal strings in claim currency; null where a figure is missing. */
export interface SettlementSum {
  currency: string;
  claimed: string | null;
  companyPaid: string | null;
  private: string | null;
  advances: string | null;
  /** Negative when the claimant owes. */
  toPay: string | null;
}

/**
 * claimed − company-paid − private − advances = to pay, from an assessment of the claim. 730.31 claimed − 0.00 − 0.00
 * − 0.00 = 730.31 to pay; decimal strings of the claim’s currency.
 */
export function settlementSum(claim: Pick<Claim, 'lines' | 'currency'>, assessment: Assessment): SettlementSum {
  const { currency } = claim;
  const read = (amount: string | null) => (amount === null ? null : toMinor(amount, currency));
  const write = (minor: bigint | null) => (minor === null ? null : fromMinor(minor, currency));
  const paidByCompany = new Set(claim.lines.filter((l) => l.paidBy !== 'own').map((l) => l.id));
  const { lines, settlement } = assessment;
  const claimed = sumKnown(lines.map((l) => read(l.claimAmount)));
  const companyPaid = sumKnown(lines.filter((l) => paidByCompany.has(l.id)).map((l) => read(l.claimAmount)));
  const personal = sumKnown(lines.flatMap((l) => l.parts.filter((p) => p.personal).map((p) => read(p.claimAmount))));
  const advances = sumKnown(settlement.advances.map((a) => read(a.applied)));
  const known = claimed !== null && companyPaid !== null && personal !== null && advances !== null;
  return {
    currency,
    claimed: write(claimed),
    companyPaid: write(companyPaid),
    private: write(personal),
    advances: write(advances),
    toPay: known ? write(claimed - companyPaid - personal - advances) : null,
  };
}
