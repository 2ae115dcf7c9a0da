import type { AssessedClaim } from './assessed.ts';
import type { RoutedKey } from '../routing/routing.queries.ts';
import type { RoutedSubject } from '../routing/routeOf.ts';
import type { ClaimRow } from './claims.queries.ts';

/** Under what the decisions about a claim's version are kept. */
export const routedKey = ({ number, version }: Pick<ClaimRow, 'number' | 'version'>): RoutedKey => ({
  ...{ kind: 'claim', id: number, version },
});

/** An assessed claim as routes look at it on a day. */
export function routedClaim(
  row: Pick<ClaimRow, 'entity_id' | 'claimant_id' | 'preparer_id' | 'currency'>,
  { document, assessment }: Pick<AssessedClaim, 'document' | 'assessment'>,
  on: string,
): RoutedSubject {
  const { lines } = document.claim;
  const categories = lines.flatMap((l) => [l.category, ...(l.items ?? []).map((i) => i.category)]);
  return {
    ...{ kind: 'claim', on, entity: row.entity_id, claimant: row.claimant_id, preparer: row.preparer_id },
    ...{ currency: row.currency, ledgerCurrency: document.book.entities[0]!.currency, assessment },
    categories: [...new Set(categories.filter((c) => c != null))],
  };
}
