import { computeCase, type CaseFigures } from '../../assess/assess.ts';
import { assessLine } from '../../assess/assessLine.ts';
import type { LineFigures, OpenCase } from '../../figures/figures.types.ts';
import type { EstimateFigures } from '../../figures/plan/judgeEstimates.ts';
import { findingsOf } from '../../figures/policy/findingsOf.ts';
import { fromMinor } from '../../numbers/amount.ts';
import { openCase } from '../../figures/openCase.ts';
import { writeAssessment } from '../../assess/writeAssessment.ts';
import type { AssessedLine, Assessment } from '../../documents/assessment.schema.ts';
import { openItemMovements, type OpenItemMovement } from '../../ledger/openItemMovements.ts';
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
export interface Kept {
  figuresOf: (line: Line) => LineFigures;
  written?: WeakMap<LineFigures, AssessedLine>;
  ties?: TieMemory;
}

/** As `reviewCase`, of an open case; with what was kept of looks before. */
export function review(open: OpenCase, evidence: Evidence, kept: Kept): Review {
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
