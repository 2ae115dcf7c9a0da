import { judgeCoding } from '../figures/coding/judgeCoding.ts';
import type { Finding } from '../documents/finding.ts';
import type { Case, Line } from '../documents/case.schema.ts';
import { buildJournal } from '../ledger/buildJournal.ts';
import { findingsOf } from '../figures/policy/findingsOf.ts';
import { findingsOfEstimates, judgeEstimates, type EstimateFigures } from '../figures/plan/judgeEstimates.ts';
import { joined } from '../numbers/joined.ts';
import { judgeLimits } from '../figures/policy/judgeLimits.ts';
import type { Verdict } from '../figures/policy/policy.types.ts';
import { settle } from '../figures/settlement/settle.ts';
import { assessLine } from './assessLine.ts';
import type { LineFigures, OpenCase, RowFigures, SettlementFigures } from '../figures/figures.types.ts';
import { openCase } from '../figures/openCase.ts';
import { writeAssessment } from './writeAssessment.ts';
import type { Assessment } from '../documents/assessment.schema.ts';

/** Everything computed of a case, in minor units, before it is written as a document. */
export interface CaseFigures {
  lines: LineFigures[];
  settlement: SettlementFigures;
  rows: RowFigures[];
  /** The estimates of the plan beside what was spent. */
  estimates: EstimateFigures[];
  /** What every rule of the book came to, kept or not. */
  verdicts: Verdict[];
  findings: Finding[];
}

/**
 * The single computation of Ebbet: an ebbet-case/1 that checkCase accepts in, an ebbet-assessment/1 out. Pure: no
 * clock, no randomness, no I/O. What is wrong with the claim comes back as findings; only what checkCase refuses
 * throws. Example: one own line of 123.00 EUR with 23 % reclaimable → tax 23.00, cost 100.00, payable 123.00, three
 * journal rows.
 */
export function assess(document: Case): Assessment {
  const open = openCase(document);
  return writeAssessment(
    open,
    computeCase(open, (line) => assessLine(open, line)),
  );
}

/**
 * The figures of a case from lines computed by the caller, who may remember those that did not change. Example: two
 * lines of which one was remembered → the figures `assess` gives for both.
 */
export function computeCase(open: OpenCase, figuresOf: (line: Line) => LineFigures): CaseFigures {
  const lines = open.case.claim.lines.map(figuresOf);
  const settlement = settle(open, lines);
  const journal = buildJournal(open, lines, settlement);
  const estimates = judgeEstimates(open, lines);
  const verdicts = joined([judgeCoding(open, lines), judgeLimits(open, lines)]);
  const findings = [
    ...joined(lines.map((l) => l.findings)),
    ...findingsOf(verdicts),
    ...findingsOfEstimates(open, estimates),
    ...settlement.findings,
    ...journal.findings,
  ];
  return { lines, settlement, rows: journal.rows, estimates, verdicts, findings };
}
