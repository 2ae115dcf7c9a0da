import { scoreEstimates } from '../../../../core/evidence/matching/scoreEstimate.ts';
import type { MakerView, SpentEstimate } from '../../../api/claims.ts';

export interface ProposedEstimate {
  line: string;
  estimate: string;
  score: number;
  reasons: string[];
}

/** For each line of a claim that names no estimate the one it is most likely the cost of, if there is one. */
export function proposedEstimates(
  { claim, document, amounts }: Pick<MakerView, 'claim' | 'document' | 'amounts'>,
  estimates: readonly SpentEstimate[],
): ProposedEstimate[] {
  return document.lines.flatMap((line) => {
    if (line.estimate || line.personal) return [];
    const category = line.category ?? line.items?.find((i) => i.category)?.category ?? null;
    const [best] = scoreEstimates({ category, amount: amounts[line.id] ?? null }, estimates, claim.currency);
    return best ? [{ line: line.id, estimate: best.id, score: best.score, reasons: best.reasons }] : [];
  });
}
