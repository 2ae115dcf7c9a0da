import { judgeCoding } from '../coding/judgeCoding.ts';
import type { Finding } from '../finding/finding.ts';
import type { Case, Line } from '../formats/case.schema.ts';
import { buildJournal } from '../journal/buildJournal.ts';
import { findingsOf } from '../policy/findingsOf.ts';
import { judgeLimits } from '../policy/judgeLimits.ts';
import type { Verdict } from '../policy/policy.types.ts';
import { settle } from '../settlement/settle.ts';
import { assessLine } from './assessLine.ts';
import type { LineFigures, OpenCase, RowFigures, SettlementFigures } from './assess.types.ts';
import { openCase } from './openCase.ts';
import { writeAssessment, type Assessment } from './writeAssessment.ts';

/** Everything computed of a case, in minor units, before it is written as a document. */
export interface CaseFigures {
  lines: LineFigures[];
  settlement: SettlementFigures;
  rows: RowFigures[];
  /** What every rule of the book came to, kept or not. */
  verdicts: Verdict[];
  findings: Finding[];
}

/**
 * The single computation of Ebbet: an ebbet-case/1 that checkCase accepts in, an ebbet-assessment/1 out. Pure: no
 * clock, no randomness, no I/O. What is wrong with the claim comes back as findings; only what checkCase refuses throws.
 */
export function assess(document: Case): Assessment {
  const open = openCase(document);
  return writeAssessment(
    open,
    computeCase(open, (line) => assessLine(open, line)),
  );
}

/** The figures of a case from lines computed by the caller, who may remember those that did not change. */
export function computeCase(open: OpenCase, figuresOf: (line: Line) => LineFigures): CaseFigures {
  const lines = open.case.claim.lines.map(figuresOf);
  const settlement = settle(open, lines);
  const journal = buildJournal(open, lines, settlement);
  const verdicts = [...judgeCoding(open, lines), ...judgeLimits(open, lines)];
  const findings = [
    ...lines.flatMap((l) => l.findings),
    ...findingsOf(verdicts),
    ...settlement.findings,
    ...journal.findings,
  ];
  return { lines, settlement, rows: journal.rows, verdicts, findings };
}
