import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Case } from '../../../core/documents/case.schema.ts';
import { facet } from '../../../core/evidence/comparisons/facets.ts';
import { isLoose } from '../../../core/evidence/comparisons/stateWithMark.ts';
import type { ReviewSummary } from '../../../core/evidence/comparisons/summariseReview.ts';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';

/**
 * The words a list of claims is filtered by: each code it is charged to, each category, each kind of comparison that is not
 * dealt with, and that it can be cleared with others. Example: → ["category:lodging", "costCentre:410", "loose:tax"].
 */
export function facetsOf({ claim }: Case, assessment: Assessment, { ties, clean }: ReviewSummary): string[] {
  const shares = assessment.lines.flatMap((l) => l.parts.flatMap((p) => p.shares));
  const codes = shares.flatMap(({ coding }) =>
    Object.entries(coding).map(([dimension, code]) => facet.code(dimension, code)),
  );
  const categories = claim.lines.flatMap((l) => [l.category, ...(l.items ?? []).map((i) => i.category)]);
  const loose = TIE_KINDS.flatMap((kind) => (isLoose(ties[kind]) ? [facet.loose(kind)] : []));
  return [
    ...new Set([
      ...codes,
      ...categories.flatMap((id) => (id ? [facet.category(id)] : [])),
      ...loose,
      ...(clean ? [facet.clean] : []),
    ]),
  ].sort();
}

/** What a claim comes to in the currency of the ledger, as a decimal string; null while a line of it is not known. */
export function totalOf({ lines }: Assessment, ledgerCurrency: string): string | null {
  const amounts = lines.map((l) => l.ledgerAmount);
  if (amounts.includes(null)) return null;
  return fromMinor(
    amounts.reduce((a, amount) => a + toMinor(amount!, ledgerCurrency), 0n),
    ledgerCurrency,
  );
}

const LONGEST = 4000;

/** What a claim is found by: its number, whose it is, what for, merchants and codes. */
export function searchText({ claim, book }: Case, { lines }: Assessment): string {
  const person = book.people[0]?.name ?? '';
  const codes = lines.flatMap((l) => l.parts.flatMap((p) => p.shares.flatMap((s) => Object.values(s.coding))));
  const words = new Set([...codes, ...claim.lines.map((l) => l.merchant ?? '')]);
  return [claim.number, person, claim.purpose ?? '', ...words].join(' ').toLowerCase().slice(0, LONGEST);
}
