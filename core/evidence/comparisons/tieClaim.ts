import type { OpenCase } from '../../figures/figures.types.ts';
import type { CaseFigures } from '../../assess/assess.ts';
import { entityOn } from '../../figures/openCase.ts';
import type { Assessment } from '../../documents/assessment.schema.ts';
import type { Line } from '../../documents/case.schema.ts';
import { groupBy } from '../../numbers/groupBy.ts';
import { tieCard } from './tieCard.ts';
import { tieDuplicate } from './tieDuplicate.ts';
import { tiePlan } from './tiePlan.ts';
import { tieRate } from './tieRate.ts';
import { tieReceipt } from './tieReceipt.ts';
import { tieRules } from './tieRules.ts';
import { tieTax } from './tieTax.ts';
import type { Evidence, Tie } from './tie.types.ts';

/**
 * Every comparison of every line of a claim, in the order of the lines and of TIE_KINDS, from the figures computed of
 * the case, so that no figure is computed a second way. Example: one line → nine ties, those that do not apply in the
 * state none.
 */
export function tieClaim(open: OpenCase, figures: CaseFigures, assessment: Assessment, evidence: Evidence): Tie[] {
  const { lines } = open.case.claim;
  const verdicts = groupBy(figures.verdicts, (verdict) => verdict.line ?? '');
  const sharing = groupBy(lines, (line) => evidence.receipts[line.id]?.id ?? '');
  const onCharge = groupBy(lines, (line) => evidence.charges[line.id]?.id ?? '');
  return lines.flatMap((line, i) => {
    const receipt = evidence.receipts[line.id];
    const charge = evidence.charges[line.id] ?? null;
    // What is about the claim as a whole stands at its first line: there it can be looked at, waived, and holds up clearing.
    const own = [...(i === 0 ? (verdicts.get('') ?? []) : []), ...(verdicts.get(line.id) ?? [])];
    return [
      tieReceipt(
        line,
        receipt
          ? { receipt, charge, sharing: sharing.get(receipt.id)!, taxNumberNeeded: taxNumberNeeded(open, line) }
          : null,
      ),
      tieCard(line, charge, charge ? onCharge.get(charge.id)! : []),
      tiePlan(open, line, figures.estimates, own),
      tieRate(open, line),
      tieTax(open, line, assessment.lines[i]!, figures.lines[i]!.findings),
      tieRules(line.id, 'limit', own),
      tieRules(line.id, 'coding', own),
      tieRules(line.id, 'budget', own),
      tieDuplicate(line, evidence.duplicates[line.id] ?? [], evidence.duplicatesCut?.includes(line.id)),
    ];
  });
}

/** A tax number is needed where some tax of the line could be reclaimed. */
function taxNumberNeeded(open: OpenCase, line: Line): boolean {
  const entity = entityOn(open, line.date);
  if (!entity.taxNumberRequired) return false;
  const entries = [...(line.tax ?? []), ...(line.items ?? []).flatMap((item) => item.tax ?? [])];
  return entries.some(({ code }) => {
    const row = open.taxCodes.on(code, line.date);
    return row !== undefined && !row.selfAssessed && (entity.taxRegistrations ?? []).includes(row.country);
  });
}
