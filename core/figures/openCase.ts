import { rateTable } from './currency/rateTable.ts';
import { datedRows } from '../numbers/datedRows.ts';
import type { Case } from '../documents/case.schema.ts';
import type { OpenCase } from './figures.types.ts';

/**
 * Indexes the book of a valid case. A case that checkCase would refuse throws a RangeError here or later. Example:
 * `open.taxCodes.on("IE-23", "2026-03-01")` → the row that holds that day.
 */
export function openCase(document: Case): OpenCase {
  const { book, claim, postingDate } = document;
  const entities = datedRows(book.entities, (row) => row.id);
  const entity = entities.on(claim.entity, postingDate);
  if (!entity) throw new RangeError(`the book has no entity ${claim.entity} on ${postingDate}`);
  return {
    case: document,
    rates: rateTable(book),
    entities,
    taxCodes: datedRows(book.taxCodes, (row) => row.code),
    categories: datedRows(book.categories, (row) => row.id),
    people: datedRows(book.people, (row) => row.id),
    advances: datedRows(book.advances ?? [], (row) => row.id),
    entity,
    ledgerCurrency: entity.currency,
    claimCurrency: claim.currency,
  };
}

/**
 * The entity as it is on a line's date: its registrations, recovery and rules. Example: registered from 1 April → a
 * line of 31 March sees no registration.
 */
export function entityOn(open: OpenCase, date: string) {
  return open.entities.on(open.case.claim.entity, date) ?? open.entity;
}
