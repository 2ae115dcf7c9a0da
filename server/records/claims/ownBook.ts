import type { Claim } from '../../../core/documents/case.schema.ts';
import type { OwnBook, SharedBook } from '../../../core/documents/splitBook.ts';
import { currenciesOf } from '../../../core/figures/policy/currenciesOf.ts';
import type { Db } from '../../platform/db/connect.ts';
import {
  selectAdvances,
  selectBudgets,
  selectClaimant,
  selectRates,
  writeLeft,
  type BudgetRow,
} from '../book/book.queries.ts';
import { rateScope } from './rateScope.ts';

/** For which document, and which records' own use of budgets is put back into what is left. */
export interface OwnBookOf {
  claim: Claim;
  shared: SharedBook;
  postingDate: string;
  apart: readonly { kind: string; id: string }[];
}

/** The part of the book that is one document's own: quotes it can need, its claimant, its advances, what is left of budgets. */
export async function selectOwnBook(
  db: Db,
  { claim, shared, postingDate, apart }: OwnBookOf,
): Promise<{ own: OwnBook; budgets: BudgetRow[] }> {
  const ledger = shared.entities[0]!.currency;
  const advances = await selectAdvances(
    db,
    (claim.advances ?? []).map((a) => a.advance),
    ledger,
  );
  const budgets = await selectBudgets(db, claim.entity, apart);
  const others = [ledger, ...advances.map((a) => a.currency), ...currenciesOf(shared.limits ?? [], claim)];
  const rates = await selectRates(db, rateScope(claim, others, postingDate));
  const people = await selectClaimant(db, claim.claimant);
  return { own: { rates, people, advances, left: writeLeft(budgets, ledger) }, budgets };
}
