import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import { chargedCodes, totalCost } from '../../../core/routing/chargedCodes.ts';
import { computeRoute } from '../../../core/routing/computeRoute.ts';
import type { Routed } from '../../../core/routing/route.schema.ts';
import type { Route, RoutedRecord } from '../../../core/routing/route.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectCodeOwners, selectRouteBook } from './routing.queries.ts';

/** What routes look at of a record: who made it, and what was computed of it. */
export interface RoutedSubject {
  kind: Routed;
  on: string;
  entity: string;
  claimant: string;
  preparer: string;
  currency: string;
  ledgerCurrency: string;
  assessment: Pick<Assessment, 'lines'>;
  categories: readonly string[];
  /** The total where it is not the sum of the lines that are assessed. */
  total?: string | null;
}

/** The route of a record as it is now, by the book of its day. */
export async function routeOf(db: Db, subject: RoutedSubject): Promise<Route> {
  const record = await routedRecord(db, subject);
  const book = await selectRouteBook(db, subject.on, [record.total.currency, record.ledgerCurrency]);
  return computeRoute(record, book);
}

/** A record with what is charged to each code and who owns it. */
export async function routedRecord(db: Db, subject: RoutedSubject): Promise<RoutedRecord> {
  const { kind, on, entity, claimant, preparer, currency, ledgerCurrency, assessment, categories } = subject;
  const owners = await selectCodeOwners(db);
  const dimensions = [...new Set([...owners.keys()].map((key) => key.split(' ')[0]!))];
  return {
    ...{ kind, on, entity, claimant, preparer, ledgerCurrency, categories },
    total: { amount: subject.total === undefined ? totalCost(assessment, currency) : subject.total, currency },
    charged: chargedCodes(assessment, dimensions, ledgerCurrency).map((charge) => ({
      ...charge,
      owner: owners.get(`${charge.dimension} ${charge.code}`) ?? null,
    })),
  };
}
