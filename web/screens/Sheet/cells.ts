import type { Tie, TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import type { Finding } from '../../../core/documents/finding.ts';
import type { Line } from '../../../core/documents/case.schema.ts';
import { isLoose, stateWithMark, type ShownTie } from '../../../core/evidence/comparisons/stateWithMark.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import type { ShownMark } from '../../api/claims.ts';

/** A cell of the tie matrix: a line and a kind of comparison. */
export interface Cell {
  line: string;
  kind: TieKind;
}
export interface MatrixRow {
  line: Line;
  ties: Map<TieKind, Tie>;
  findings: Finding[];
  /** Some comparison is neither tied nor dealt with. */
  loose: boolean;
  /** Everything tied or dealt with, and no finding other than notes: such rows fold. */
  quiet: boolean;
}

/** The state of a comparison with what the reviewer said of it. */
export function shownState(tie: Tie | undefined, marks: readonly ShownMark[]): ShownTie {
  if (!tie) return 'none';
  return stateWithMark(tie, marks.find((m) => m.line === tie.line && m.kind === tie.kind)?.mark ?? null);
}

/** Rows as they were last made, by line, with what they were made of. */
export type RowMemory = Map<string, { of: readonly unknown[]; row: MatrixRow }>;

/** A row a line. @param memory a row made of the same as before is the very row it was, so that it is not drawn again */
export function matrixRows(
  lines: readonly Line[],
  ties: readonly Tie[],
  findings: readonly Finding[],
  marks: readonly ShownMark[],
  memory: RowMemory = new Map(),
): MatrixRow[] {
  const tiesOf = groupBy(ties, (t) => t.line);
  const marksOf = groupBy(marks, (m) => m.line);
  const findingsOf = groupBy(findings, (f) => f.line);
  return lines.map((line) => {
    const [own, about, said] = [tiesOf, findingsOf, marksOf].map((of) => of.get(line.id) ?? []) as [
      Tie[],
      Finding[],
      ShownMark[],
    ];
    const of = [line, own.length, ...own, about.length, ...about, ...said];
    const before = memory.get(line.id);
    if (before && before.of.length === of.length && of.every((part, i) => part === before.of[i])) return before.row;
    const row = rowOf(line, own, about, said);
    memory.set(line.id, { of, row });
    return row;
  });
}

function rowOf(line: Line, ties: readonly Tie[], findings: Finding[], marks: readonly ShownMark[]): MatrixRow {
  const loose = ties.some((t) => isLoose(shownState(t, marks)));
  return {
    ...{ line, ties: new Map(ties.map((t) => [t.kind, t])), findings, loose },
    quiet: !loose && findings.every((f) => f.severity === 'note'),
  };
}

/** Other lines where the same facts of a kind are off or open, and nothing was said of it yet. */
export function sameLoose(ties: readonly Tie[], marks: readonly ShownMark[], { line, kind }: Cell): string[] {
  const ofKind = ties.filter((t) => t.kind === kind && isLoose(shownState(t, marks)));
  const here = ofKind.find((t) => t.line === line);
  return here ? ofKind.filter((t) => t !== here && looseFacts(t) === looseFacts(here)).map((t) => t.line) : [];
}
const looseFacts = ({ state, comparisons }: Tie): string =>
  [state, ...comparisons.filter((c) => c.state === 'off' || c.state === 'open').map((c) => c.fact)].join('\n');

/** What a cell says beside its mark: the difference where there is one, else a word. */
export function wordOf(tie: Tie | undefined, state: ShownTie): string {
  switch (state) {
    case 'off':
    case 'open':
      return tie!.difference ?? (tie!.comparisons.length === 0 ? 'missing' : 'to check');
    case 'waived':
    case 'seen':
      return state;
    default:
      return '';
  }
}

/** Kinds of comparison that apply to at least one line. */
export const kindsShown = (ties: readonly Tie[]): TieKind[] =>
  TIE_KINDS.filter((kind) => ties.some((t) => t.kind === kind && t.state !== 'none'));

/** The next cell that is off or open after `from` in reading order, starting over at the end; null when there is none. */
export function nextLoose(
  rows: readonly MatrixRow[],
  kinds: readonly TieKind[],
  marks: readonly ShownMark[],
  from: Cell | null,
): Cell | null {
  const cells = rows.flatMap((row) =>
    kinds.map((kind) => ({ line: row.line.id, kind, state: shownState(row.ties.get(kind), marks) })),
  );
  const at = from ? cells.findIndex((c) => c.line === from.line && c.kind === from.kind) : -1;
  const found = [...cells.slice(at + 1), ...cells.slice(0, at + 1)].find((c) => isLoose(c.state));
  return found ? { line: found.line, kind: found.kind } : null;
}
