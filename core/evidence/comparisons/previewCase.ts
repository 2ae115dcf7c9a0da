import { assessLine } from '../../assess/assessLine.ts';
import { undividedOf, type Undivided } from '../../assess/undivided.ts';
import { checkCase } from '../../documents/checkCase.ts';
import type { Case, Line } from '../../documents/case.schema.ts';
import type { Problem } from '../../documents/problem.ts';
import type { LineFigures } from '../../figures/figures.types.ts';
import { openCase } from '../../figures/openCase.ts';
import { review, type Kept, type Review } from './reviewCase.ts';
import type { Evidence } from './tie.types.ts';

/** What a preview answers: the review as it would be, or what in the typed line cannot be. */
export type Preview = ({ ok: true; undivided: Undivided[] } & Review) | { ok: false; problem: Problem };

/** A case that is looked at while lines of it are typed. */
export interface CasePreview {
  /** The review with some lines changed; the other lines are not computed again. */
  withLines(lines: readonly Line[]): Preview;
}

/**
 * Opens a valid case for previews. The same computation, remembering the lines that do not change. Example: one line of
 * 300 changed → one line computed, the others remembered.
 */
export function previewCase(document: Case, evidence: Evidence): CasePreview {
  const open = openCase(document);
  const remembered = new Map<Line, LineFigures>(document.claim.lines.map((line) => [line, assessLine(open, line)]));
  const kept: Kept = {
    figuresOf: (line) => remembered.get(line) ?? assessLine(open, line),
    written: new WeakMap(),
    ties: new Map(),
  };
  return {
    withLines(typed) {
      const { claim } = document;
      // what is said to other lines is no fault of these
      const alone = { ...document, claim: { ...claim, lines: [...typed], explanations: null } };
      const problem = checkCase(alone)[0];
      if (problem) return { ok: false, problem: { ...problem, path: pathIn(claim.lines, typed, problem.path) } };
      const now = new Map(typed.map((line) => [line.id, line]));
      const lines = claim.lines.map((line) => now.get(line.id) ?? line);
      const changed = { ...open, case: { ...document, claim: { ...claim, lines } } };
      return {
        ok: true,
        undivided: typed.flatMap((line) => undividedOf(open, line)),
        ...review(changed, evidence, kept),
      };
    },
  };
}

/** Where a fault of typed lines is in the whole claim. */
function pathIn(
  lines: readonly Line[],
  typed: readonly Line[],
  [, , index, ...rest]: Problem['path'],
): Problem['path'] {
  return ['claim', 'lines', lines.findIndex((l) => l.id === typed[Number(index)]?.id), ...rest];
}
