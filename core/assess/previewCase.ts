import { checkCase, type Problem } from '../formats/checkCase.ts';
import type { Case, Line } from '../formats/case.schema.ts';
import { tieClaim } from '../tie/tieClaim.ts';
import type { Evidence, Tie } from '../tie/tie.types.ts';
import { assessLines } from './assess.ts';
import { assessLine } from './assessLine.ts';
import type { LineFigures } from './assess.types.ts';
import { openCase } from './openCase.ts';
import type { Assessment } from './writeAssessment.ts';

/** What a preview answers: the claim as it would be assessed, or what in the typed line cannot be. */
export type Preview = { ok: true; assessment: Assessment; ties: Tie[] } | { ok: false; problem: Problem };

/** A case that is looked at while lines of it are typed. */
export interface CasePreview {
  /** The preview with one line changed; the other lines are not computed again. */
  withLine(line: Line): Preview;
}

/** Opens a valid case for previews. Same computation as `assess`, remembering the lines that do not change. */
export function previewCase(document: Case, evidence: Evidence): CasePreview {
  const open = openCase(document);
  const remembered = new Map<Line, LineFigures>(document.claim.lines.map((line) => [line, assessLine(open, line)]));
  return {
    withLine(line) {
      const index = document.claim.lines.findIndex((l) => l.id === line.id);
      const path = ['claim', 'lines', index];
      const alone = { ...document, claim: { ...document.claim, lines: [line] } };
      const problem = checkCase(alone)[0];
      if (problem) return { ok: false, problem: { ...problem, path: [...path, ...problem.path.slice(3)] } };
      const lines = document.claim.lines.with(index, line);
      const changed = { ...document, claim: { ...document.claim, lines } };
      const assessment = assessLines({ ...open, case: changed }, (l) => remembered.get(l) ?? assessLine(open, l));
      return { ok: true, assessment, ties: tieClaim(changed, assessment, evidence) };
    },
  };
}
