import { fromMinor } from '../../../core/numbers/amount.ts';
import type { RoutedKey } from '../routing/routing.queries.ts';
import type { RoutedSubject } from '../routing/routeOf.ts';
import type { AdvanceRow } from './advances.queries.ts';

/** Under what the decisions about an advance are kept. */
export const routedAdvanceKey = ({ id }: Pick<AdvanceRow, 'id'>): RoutedKey => ({ kind: 'advance', id, version: 1 });

/** An advance as routes look at it on a day. It is charged to no code before it is accounted for. */
export const routedAdvance = (row: AdvanceRow, ledgerCurrency: string, on: string): RoutedSubject => ({
  ...{ kind: 'advance', on, entity: row.entity_id, claimant: row.person_id, preparer: row.person_id },
  ...{ currency: row.currency, ledgerCurrency, assessment: { lines: [] } },
  total: fromMinor(row.amount, row.currency),
  categories: [],
});
