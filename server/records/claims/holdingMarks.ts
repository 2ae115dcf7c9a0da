import type { Tie } from '../../../core/evidence/comparisons/tie.types.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import { fingerprintOf, type AssessedClaim, type KeptClaim } from './assessed.ts';
import type { MarkRow } from './marks.queries.ts';

/**
 * What a reviewer said that still holds of the comparisons as they are computed now, with their fingerprints. It holds of the
 * very comparison it was said of; and, where the entity takes the rates of the posting, of the same comparison by the rates of
 * another day, so that a waiver is not of one day alone.
 */
export function holdingMarks<Mark extends MarkRow>(
  marks: readonly Mark[],
  now: Pick<AssessedClaim, 'document' | 'ties'>,
  before: Pick<KeptClaim, 'document' | 'ties'> | null,
): Mark[] {
  const rates = before !== null && onlyRatesDiffer(before, now);
  return marks.flatMap((mark) => {
    const tie = now.ties.find((t) => isOf(mark, t));
    if (!tie) return [];
    const about = fingerprintOf(tie);
    if (about === mark.about) return [mark];
    const then = rates ? before.ties.find((t) => isOf(mark, t)) : undefined;
    return then && fingerprintOf(then) === mark.about && sameButFigures(then, tie) ? [{ ...mark, about }] : [];
  });
}

const isOf = (mark: MarkRow, tie: Tie): boolean => tie.line === mark.line_id && tie.kind === mark.kind;

/** What a comparison is made by besides rates, and what has been used of budgets. */
const RULES = [
  'entities',
  'limits',
  'codingRules',
  'taxCodes',
  'categories',
  'mileageRates',
  'allowanceRates',
] as const;
const rulesOf = ({ book }: AssessedClaim['document']) => canonical(RULES.map((part) => book[part] ?? null));

/** The same claim by the same rules and other rates, where rates are those of the posting. */
const onlyRatesDiffer = (before: Pick<KeptClaim, 'document'>, now: Pick<AssessedClaim, 'document'>): boolean =>
  now.document.book.entities[0]!.rateDate === 'posting'
  && rulesOf(before.document) === rulesOf(now.document)
  && canonical(before.document.claim) === canonical(now.document.claim);

/** Whether the same facts are compared and came to the same, whatever their figures; what is left of a budget is no matter of rates. */
function sameButFigures(a: Tie, b: Tie): boolean {
  if (a.kind === 'budget' || a.kind === 'duplicate') return false;
  const facts = ({ state, comparisons }: Tie) => canonical([state, comparisons.map((c) => [c.fact, c.state])]);
  return facts(a) === facts(b);
}
