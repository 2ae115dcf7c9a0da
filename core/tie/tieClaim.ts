import { entityOn, openCase } from '../assess/openCase.ts';
import type { Assessment } from '../assess/writeAssessment.ts';
import type { Case, Line } from '../formats/case.schema.ts';
import type { OpenCase } from '../assess/assess.types.ts';
import type { Evidence, Tie } from './tie.types.ts';
import { tieRate } from './tieRate.ts';
import { tieReceipt } from './tieReceipt.ts';
import { tieTax } from './tieTax.ts';

/**
 * Every comparison of every line of a claim, in the order of the lines and of TIE_KINDS. Pure, like `assess`, whose
 * result for the same case it takes, so that no figure is computed a second way.
 */
export function tieClaim(document: Case, assessment: Assessment, evidence: Evidence): Tie[] {
  const open = openCase(document);
  const { lines } = document.claim;
  return lines.flatMap((line, i) => [
    tieReceipt(line, { evidence, lines, taxNumberNeeded: taxNumberNeeded(open, line) }),
    tieRate(open, line),
    tieTax(open, line, assessment.lines[i]!, assessment.findings),
  ]);
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
