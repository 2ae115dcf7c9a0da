import { computeCase, type CaseFigures } from '../../assess/assess.ts';
import { assessLine } from '../../assess/assessLine.ts';
import { undividedOf, type Undivided } from '../../assess/undivided.ts';
import type { LineFigures, OpenCase } from '../../figures/figures.types.ts';
import type { EstimateFigures } from '../../figures/plan/judgeEstimates.ts';
import { findingsOf } from '../../figures/policy/findingsOf.ts';
import { fromMinor } from '../../numbers/amount.ts';
import { openCase } from '../../figures/openCase.ts';
import { writeAssessment } from '../../assess/writeAssessment.ts';
import type { AssessedLine, Assessment } from '../../documents/assessment.schema.ts';
import { openItemMovements, type OpenItemMovement } from '../../ledger/openItemMovements.ts';
import { checkCase } from '../../documents/checkCase.ts';
import type { Problem } from '../../documents/problem.ts';
import type { Case, Line } from '../../documents/case.schema.ts';
import { judgeDates } from './judgeDates.ts';
import { judgeDriven } from './judgeDriven.ts';
import { tieClaim, type TieMemory } from './tieClaim.ts';
import type { Evidence, Tie } from './tie.types.ts';

/** An estimate and what was spent of it, in the claim's currency; null while a line's amount is not known. */
export interface SpentEstimate {
  id: string;
  category: string | null;
  amount: string;
  actual: string | null;
  kept: boolean;
  lines: string[];
}

/** A claim as a reviewer looks at it: its assessment and every comparison with its evidence. */
export interface Review {
  assessment: Assessment;
  ties: Tie[];
  /** The estimates of its plan beside what was spent. */
  estimates: SpentEstimate[];
  /** What the journal's rows move on control accounts. */
  movements: OpenItemMovement[];
}

/**
 * Assesses a valid case and compares it with its evidence, computing every line once. Example: a line of 20.00 with a
 * receipt over 20.50 → its receipt tie is off by 0.50.
 */
export function reviewCase(document: Case, evidence: Evidence): Review {
  const open = openCase(document);
  return review(open, evidence, { figuresOf: (line) => assessLine(open, line) });
}

/** What is kept from one look to the next, so that lines that did not change are not computed, written or compared again. */
interface Kept {
  figuresOf: (line: Line) => LineFigures;
  written?: WeakMap<LineFigures, AssessedLine>;
  ties?: TieMemory;
}

function review(open: OpenCase, evidence: Evidence, kept: Kept): Review {
  const figures = judged(open, evidence, computeCase(open, kept.figuresOf));
  const assessment = writeAssessment(open, figures, kept.written);
  return {
    assessment,
    ties: tieClaim(open, figures, assessment, evidence, kept.ties),
    estimates: figures.estimates.map((estimate) => writeEstimate(open, estimate)),
    movements: openItemMovements(figures.rows),
  };
}

/** The figures with what is said beside them of days, and of what was driven before. */
function judged(open: OpenCase, evidence: Evidence, figures: CaseFigures): CaseFigures {
  const beside = [...judgeDates(open), ...judgeDriven(open, figures.lines, evidence.driven ?? {})];
  if (beside.length === 0) return figures;
  const verdicts = [...figures.verdicts, ...beside];
  return { ...figures, verdicts, findings: [...figures.findings, ...findingsOf(beside)] };
}

function writeEstimate(open: OpenCase, { id, amount, actual, kept, lines }: EstimateFigures): SpentEstimate {
  const write = (minor: bigint) => fromMinor(minor, open.claimCurrency);
  const category = open.case.claim.plan?.estimates.find((e) => e.id === id)?.category ?? null;
  return {
    id,
    category,
    amount: write(amount),
    actual: actual === null ? null : write(actual),
    kept,
    lines: lines.map(({ line }) => line.id),
  };
}

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
