import { assessLine } from '../../assess/assessLine.ts';
import { readCase } from '../../documents/readCase.ts';
import type { Case, Line } from '../../documents/case.schema.ts';
import type { AssessedLine } from '../../documents/assessment.schema.ts';
import type { LineFigures, OpenCase } from '../../figures/figures.types.ts';
import { openCase } from '../../figures/openCase.ts';
import { sameValue } from '../../numbers/sameValue.ts';
import { review, type Kept, type Review } from './reviewCase.ts';
import type { TieMemory } from './tieClaim.ts';
import type { Evidence } from './tie.types.ts';

/** A valid case that is kept while its lines are written, so that it is reviewed again at the cost of what is other in it. */
export interface RememberedCase {
  /** Lines that are not the ones last reviewed; null where more than lines is other, and the case has to be opened anew. */
  changedIn(document: Case): Line[] | null;
  /** Computes one more line of the case, which `again` then need not do; whether there was one. */
  computeNext(): boolean;
  /**
   * What `reviewCase` gives for a document that differs in lines `changedIn` told of, computing these alone; null where one of
   * them cannot be: then it is read as a case nobody knows.
   */
  again(document: Case, evidence: Evidence, changed: readonly Line[]): ({ document: Case } & Review) | null;
}

/** Keeps a valid case and its evidence. Example: 1,000 lines, one of them changed → one line computed, the review of all. */
export function rememberCase(document: Case, evidence: Evidence): RememberedCase {
  const open = openCase(document);
  const remembered = new WeakMap<Line, LineFigures>();
  const written = new WeakMap<LineFigures, AssessedLine>();
  const ties: TieMemory = new Map();
  const kept: Kept = { figuresOf: (line) => remembered.get(line) ?? compute(line), written, ties };
  let last = { document, evidence };
  let computed = 0;

  function compute(line: Line): LineFigures {
    const figures = assessLine(open, line);
    remembered.set(line, figures);
    return figures;
  }

  return {
    changedIn: (now) => (sameBesideLines(last.document, now) ? changedLines(last.document, now) : null),
    computeNext() {
      const { lines } = last.document.claim;
      while (computed < lines.length && remembered.has(lines[computed]!)) computed += 1;
      const next = lines[computed];
      if (next) compute(next);
      return next !== undefined;
    },
    again(now, about, changed) {
      if (!canBe(now, changed)) return null;
      const known = {
        ...now,
        book: document.book,
        claim: { ...now.claim, lines: withKnown(last.document, now, changed) },
      };
      forgetCompared(ties, last.evidence, about);
      last = { document: known, evidence: about };
      const opened: OpenCase = { ...open, case: known };
      return { document: known, ...review(opened, about, kept) };
    },
  };
}

/** Whether two cases say the same but for what their lines, the same ones in the same order, say. */
function sameBesideLines({ claim: a, ...before }: Case, { claim: b, ...now }: Case): boolean {
  return (
    a.lines.length === b.lines.length
    && a.lines.every(({ id }, i) => b.lines[i]!.id === id)
    && sameValue({ ...a, lines: null }, { ...b, lines: null })
    && sameValue(before, now)
  );
}

const changedLines = (before: Case, now: Case): Line[] =>
  now.claim.lines.filter((line, i) => !sameValue(before.claim.lines[i], line));

/** The lines, those that did not change as the very objects they were before. */
function withKnown(before: Case, now: Case, changed: readonly Line[]): Line[] {
  const other = new Set(changed);
  return now.claim.lines.map((line, i) => (other.has(line) ? line : before.claim.lines[i]!));
}

/** What is said to other lines is no fault of those that changed. */
const canBe = (now: Case, lines: readonly Line[]): boolean =>
  readCase({ ...now, claim: { ...now.claim, lines, explanations: null } }).ok;

/** Comparisons with evidence that is other now are made anew: those of one line with what is alike, all with papers and charges. */
function forgetCompared(ties: TieMemory, before: Evidence, now: Evidence): void {
  const { duplicates: alike, duplicatesCut: cut = [], ...papers } = before;
  const { duplicates: alikeNow, duplicatesCut: cutNow = [], ...papersNow } = now;
  if (!sameValue(papers, papersNow)) return ties.clear();
  for (const line of ties.keys())
    if (!sameValue(alike[line], alikeNow[line]) || cut.includes(line) !== cutNow.includes(line)) ties.delete(line);
}
