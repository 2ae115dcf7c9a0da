import { useOfAdvance } from '../advances/useOfAdvance.ts';
import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Case, Claim } from '../../../core/documents/case.schema.ts';
import type { Evidence } from '../../../core/evidence/comparisons/tie.types.ts';
import { currenciesOf } from '../../../core/figures/policy/currenciesOf.ts';
import { budgetUse, type Budget } from '../../../core/ledger/budgetUse.ts';

/** Keys under which a claim is found again when what it was assessed by changes. */
export const useOfBook = (entity: string): string => `book:${entity}`;
export const useOfRate = (currency: string): string => `rate:${currency}`;
export const useOfBudget = (id: string): string => `budget:${id}`;
export const useOfPerson = (id: string): string => `person:${id}`;
/** Claims with journeys of a person: what stands before them changes with what of theirs is let through. */
export const useOfDriven = (person: string): string => `driven:${person}`;
export const useOfClaim = (number: string): string => `claim:${number}`;
/** One claim by itself, whatever it was assessed by. */
export const onlyClaim = (number: string): string => `only:${number}`;
/** Claims whose figures depend on the day. */
export const USE_OF_TODAY = 'today';

/** An assessed claim, as far as it says what it was made with. */
interface Assessed {
  document: Case;
  assessment: Assessment;
  budgets: readonly Budget[];
  evidence: Pick<Evidence, 'duplicates'>;
}

/** Claims that looked like this one no longer do. */
export const noLongerAlike = ({ row }: { row: { number: string } }) => [
  { name: 'assess-claims' as const, data: { key: useOfClaim(row.number) } },
];

/** What stands before a person's other journeys changes with a claim that has some. */
export const drivenAgain = ({ claimant, lines }: Pick<Claim, 'claimant' | 'lines'>) =>
  lines.some((l) => l.journey) ? [{ name: 'assess-claims' as const, data: { key: useOfDriven(claimant) } }] : [];

/** What an assessment was made with: book, currencies, budgets, advances, claims that look alike, the day. */
export function usesOf({ document, assessment, budgets, evidence }: Assessed): string[] {
  const { claim, book } = document;
  const ledger = book.entities[0]!.currency;
  const stated = claim.lines.flatMap((l) => [
    l.currency,
    ...(l.rate?.kind === 'card' ? [l.rate.settled.currency] : []),
  ]);
  const advances = book.advances ?? [];
  const compared = currenciesOf(book.limits ?? [], claim);
  const currencies = new Set([claim.currency, ledger, ...stated, ...advances.map((a) => a.currency), ...compared]);
  const alike = Object.values(evidence.duplicates).flatMap((found) => found.map((d) => d.claim));
  const ahead = claim.lines.some((l) => l.date > document.postingDate);
  const byDay = ahead || advances.length > 0 || book.entities.some((e) => e.rateDate === 'posting');
  return [
    useOfBook(claim.entity),
    useOfPerson(claim.claimant),
    ...(currencies.size > 1 ? [...currencies].map(useOfRate) : []),
    ...budgetUse(assessment, claim, budgets, ledger).map((b) => useOfBudget(b.id)),
    ...advances.map((a) => useOfAdvance(a.id)),
    ...alike.map(useOfClaim),
    ...(claim.lines.some((l) => l.journey) ? [useOfDriven(claim.claimant)] : []),
    ...(byDay ? [USE_OF_TODAY] : []),
  ];
}
