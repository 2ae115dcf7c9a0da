import { buildJournal } from '../journal/buildJournal.ts';
import type { Case, Line } from '../formats/case.schema.ts';
import { settle } from '../settlement/settle.ts';
import { assessLine } from './assessLine.ts';
import type { LineFigures, OpenCase } from './assess.types.ts';
import { openCase } from './openCase.ts';
import { writeAssessment, type Assessment } from './writeAssessment.ts';

/**
 * The single computation of Ebbet: an ebbet-case/1 that checkCase accepts in, an ebbet-assessment/1 out. Pure: no
 * clock, no randomness, no I/O. What is wrong with the claim comes back as findings; only what checkCase refuses throws.
 */
export function assess(document: Case): Assessment {
  const open = openCase(document);
  return assessLines(open, (line) => assessLine(open, line));
}

/** The assessment from lines computed elsewhere: a preview hands in those it remembers. */
export function assessLines(open: OpenCase, figuresOf: (line: Line) => LineFigures): Assessment {
  const lines = open.case.claim.lines.map(figuresOf);
  const settlement = settle(open, lines);
  const journal = buildJournal(open, lines, settlement);
  const findings = [...lines.flatMap((l) => l.findings), ...settlement.findings, ...journal.findings];
  return writeAssessment(open, lines, settlement, journal.rows, findings);
}
