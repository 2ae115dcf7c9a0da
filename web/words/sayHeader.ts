import type { ClaimHeader } from '../../contract/claims.ts';

/** Where a claim was, when, and what else its header says, for those who look at it. */
export const sayHeader = (claim: Omit<ClaimHeader, 'clearedBy'>): string =>
  [
    claim.entityName,
    [claim.place, claim.country].filter(Boolean).join(', '),
    claim.tripFrom && (claim.tripTo ? `${claim.tripFrom} to ${claim.tripTo}` : claim.tripFrom),
    claim.reference && `reference ${claim.reference}`,
    claim.preparer !== claim.claimant && `prepared by ${claim.preparer}`,
  ]
    .filter(Boolean)
    .join(' · ');
