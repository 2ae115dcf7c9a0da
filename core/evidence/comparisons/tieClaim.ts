import type { CaseFigures } from '../../assess/assess.ts';
import type { AssessedLine, Assessment } from '../../documents/assessment.schema.ts';
import type { Line } from '../../documents/case.schema.ts';
import type { LineFigures, OpenCase } from '../../figures/figures.types.ts';
import { entityOn } from '../../figures/openCase.ts';
import type { EstimateFigures } from '../../figures/plan/judgeEstimates.ts';
import type { Verdict } from '../../figures/policy/policy.types.ts';
import { groupBy } from '../../numbers/groupBy.ts';
import { joined } from '../../numbers/joined.ts';
import { tieCard } from './tieCard.ts';
import { tieDuplicate } from './tieDuplicate.ts';
import { tiePlan } from './tiePlan.ts';
import { tieRate } from './tieRate.ts';
import { tieReceipt } from './tieReceipt.ts';
import { tieRules } from './tieRules.ts';
import { tieTax } from './tieTax.ts';
import type { Evidence, Tie } from './tie.types.ts';

/** Everything the comparisons of one line are made of, besides the book and the evidence, which do not change while one types. */
interface LineInputs {
  line: Line;
  figures: LineFigures;
  assessed: AssessedLine;
  /** Verdicts of the rules on it. */
  own: readonly Verdict[];
  /** Lines with the same receipt, and with the same charge. */
  sharing: readonly Line[];
  onCharge: readonly Line[];
  /** The estimate it is the cost of. */
  estimates: readonly EstimateFigures[];
}

/** Comparisons of lines as they were last made, with what they were made of. */
export type TieMemory = Map<string, { of: LineInputs; ties: Tie[] }>;

/**
 * Every comparison of every line of a claim, in the order of the lines and of TIE_KINDS, from the figures computed of
 * the case, so that no figure is computed a second way. Example: one line → nine ties, those that do not apply in the
 * state none. @param memory lines made of the same as before keep the very ties they had
 */
export function tieClaim(
  open: OpenCase,
  figures: CaseFigures,
  assessment: Assessment,
  evidence: Evidence,
  memory: TieMemory = new Map(),
): Tie[] {
  const ties = inputsOf(open, figures, assessment, evidence).map((inputs) => {
    const before = memory.get(inputs.line.id);
    if (before && sameInputs(before.of, inputs)) return before.ties;
    const made = tieLine(open, evidence, inputs);
    memory.set(inputs.line.id, { of: inputs, ties: made });
    return made;
  });
  return joined(ties);
}

/**
 * Whether comparisons of a line would come out as before. Its figures follow from the line; verdicts on several lines are
 * made anew each time, so what they say counts.
 */
const sameInputs = (a: LineInputs, b: LineInputs): boolean =>
  a.line === b.line
  && sameList(a.sharing, b.sharing, isSame)
  && sameList(a.onCharge, b.onCharge, isSame)
  && sameList(a.estimates, b.estimates, sameEstimate)
  && sameList(a.own, b.own, sameFields);

const isSame = (a: unknown, b: unknown): boolean => a === b;
const sameEstimate = (a: EstimateFigures, b: EstimateFigures): boolean =>
  a.id === b.id
  && a.amount === b.amount
  && a.actual === b.actual
  && a.kept === b.kept
  && sameList(a.lines, b.lines, isSame);
const sameList = <T>(a: readonly T[], b: readonly T[], same: (a: T, b: T) => boolean): boolean =>
  a.length === b.length && a.every((one, i) => same(one, b[i]!));

function sameFields<T extends object>(a: T, b: T): boolean {
  if (a === b) return true;
  for (const field in a) if (a[field] !== b[field]) return false;
  return true;
}

function inputsOf(open: OpenCase, figures: CaseFigures, assessment: Assessment, evidence: Evidence): LineInputs[] {
  const { lines } = open.case.claim;
  const verdicts = groupBy(figures.verdicts, (verdict) => verdict.line ?? '');
  const sharing = groupBy(lines, (line) => evidence.receipts[line.id]?.id ?? '');
  const onCharge = groupBy(lines, (line) => evidence.charges[line.id]?.id ?? '');
  // What is about the claim as a whole stands at its first line: there it can be looked at, waived, and holds up clearing.
  const first = lines[0]?.id ?? '';
  const whole = verdicts.get('');
  if (whole) verdicts.set(first, [...whole, ...(verdicts.get(first) ?? [])]);
  return lines.map((line, i) => {
    const receipt = evidence.receipts[line.id];
    const charge = evidence.charges[line.id];
    return {
      line,
      figures: figures.lines[i]!,
      assessed: assessment.lines[i]!,
      own: verdicts.get(line.id) ?? [],
      sharing: receipt ? sharing.get(receipt.id)! : [],
      onCharge: charge ? onCharge.get(charge.id)! : [],
      estimates: figures.estimates.filter((e) => e.id === line.estimate),
    };
  });
}

function tieLine(open: OpenCase, evidence: Evidence, inputs: LineInputs): Tie[] {
  const { line, figures, assessed, own, sharing, onCharge, estimates } = inputs;
  const receipt = evidence.receipts[line.id];
  const chargeOf = ({ id }: Line) => evidence.charges[id] ?? null;
  const paper = receipt && {
    ...{ receipt, sharing, taxNumberNeeded: taxNumberNeeded(open, line) },
    charge: sharing.map(chargeOf).find((c) => c !== null) ?? null,
  };
  return [
    tieReceipt(line, paper ?? null),
    tieCard(line, chargeOf(line), onCharge),
    tiePlan(open, line, estimates, own),
    tieRate(open, line),
    tieTax(open, line, assessed, figures.findings),
    tieRules(line.id, 'limit', own),
    tieRules(line.id, 'coding', own),
    tieRules(line.id, 'budget', own),
    tieDuplicate(line, evidence.duplicates[line.id] ?? [], evidence.duplicatesCut?.includes(line.id)),
  ];
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
