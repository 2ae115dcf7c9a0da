import type { Item, Line } from '../../../core/documents/case.schema.ts';
import type { TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import type { ClaimActs, ClaimAnswer, ClaimView, CorrectionSet, JournalPreview } from '../../api/claims.ts';
import { HALVES } from '../../parts/convertSplit.ts';

export type BenchKind = 'split' | 'coding' | 'tax' | 'items';
/** What is being edited under a line: nothing, or a set of changes to the line or one of its items. */
export interface Bench {
  line: string;
  item: string | null;
  kind: BenchKind;
  set: CorrectionSet;
}
/** A way back from an act that was done. */
export interface Undo {
  label: string;
  run: (acts: ClaimActs, revision: number) => Promise<ClaimAnswer>;
}

/** The journal that would be posted on a date: its preview once it is there, until then the one that was kept for that date. */
export function postingOf(view: ClaimView, date: string, preview: JournalPreview | undefined): JournalPreview | null {
  if (preview?.date === date) return preview;
  const { assessment, digest } = view;
  return view.document.postingDate === date ? { date, assessment, digest } : null;
}

/** The line or item a bench works on. */
export function partOf(view: ClaimView, at: Pick<Bench, 'line' | 'item'>): Line | Item {
  const line = view.document.claim.lines.find((l) => l.id === at.line)!;
  return at.item ? line.items!.find((i) => i.id === at.item)! : line;
}

/** What a bench begins with: the part's own values, so that saving without a change changes nothing. */
export function setOf(part: Line | Item, kind: BenchKind): CorrectionSet {
  switch (kind) {
    case 'split':
      return { split: part.split ?? null };
    case 'coding':
      return { coding: part.coding ?? {}, ...(part.category ? { category: part.category } : {}) };
    case 'tax':
      return { tax: part.tax ?? [] };
    case 'items':
      return {};
    default:
      return kind satisfies never;
  }
}

/** A bench for a line, or for the first of its items that can be changed; a line that is whole is proposed in halves. */
export function openedBench(view: ClaimView, line: string, kind: BenchKind): Bench {
  const first = partOf(view, { line, item: null }) as Line;
  const item = kind === 'items' ? null : (first.items?.find((i) => !i.personal)?.id ?? null);
  const set = setOf(partOf(view, { line, item }), kind);
  return { line, item, kind, set: set.split === null ? { split: HALVES } : set };
}

/** The line as it would be with a bench's changes. */
export function lineWith(view: ClaimView, { line: id, item: itemId, set }: Bench): Line {
  const line = view.document.claim.lines.find((l) => l.id === id)!;
  if (!itemId) return { ...line, ...set };
  return { ...line, items: line.items!.map((item) => (item.id === itemId ? { ...item, ...set } : item)) };
}

/** What the part says now of the fields a bench changes, for undoing. */
export function currentSet(view: ClaimView, bench: Bench): CorrectionSet {
  const part = partOf(view, bench);
  const all: CorrectionSet = {
    coding: part.coding ?? {},
    split: part.split ?? null,
    tax: part.tax ?? [],
    ...(part.category ? { category: part.category } : {}),
  };
  return Object.fromEntries(Object.entries(all).filter(([field]) => field in bench.set));
}

/** How to take back the question that was asked last. */
export function undoAsk(after: ClaimAnswer): Undo {
  const { id, line } = after.queries.at(-1)!;
  return { label: `question about line ${line}`, run: (acts, revision) => acts.dropQuery(id, revision) };
}

/** How to take the clearing of a claim back. */
export function undoClear(view: ClaimView): Undo {
  return {
    label: `clearing of ${view.claim.number}`,
    run: (acts: ClaimActs, revision: number) => acts.plain('reopen', revision),
  };
}

/** How to take the saving of a bench back: what the part says now is said again. */
export function undoBench(view: ClaimView, bench: Bench): Undo {
  const { line, item, kind } = bench;
  const set = currentSet(view, bench);
  return { label: `${kind} of line ${line}`, run: (acts, revision) => acts.correct(line, { revision, item, set }) };
}

type Cell = { line: string; kind: TieKind };

/** The fingerprint of a comparison as it is seen, and the mark that would bring back what is there now. */
export function marksOf(view: ClaimView | undefined, { line, kind }: Cell) {
  const same = (x: Cell) => x.line === line && x.kind === kind;
  const earlier = view?.marks.find(same);
  const about = view?.ties.find(same)?.about;
  const before = {
    line,
    kind,
    mark: earlier?.mark ?? ('none' as const),
    ...(earlier && about ? { about } : {}),
    ...(earlier?.reason ? { reason: earlier.reason } : {}),
  };
  return { about, before };
}
