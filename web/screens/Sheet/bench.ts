import type { Item, Line } from '../../../core/documents/case.schema.ts';
import type { TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import type {
  ClaimActs,
  ClaimAnswer,
  ClaimView,
  CorrectionSet,
  JournalPreview,
  LineCorrection,
} from '../../api/claims.ts';
import { HALVES } from '../../parts/convertSplit.ts';

export type BenchKind = 'split' | 'coding' | 'tax' | 'items' | 'allowed' | 'facts';
/** What each is called. */
export const BENCH_NAMES: Record<BenchKind, string> = {
  split: 'split',
  coding: 'coding',
  tax: 'tax',
  items: 'items',
  allowed: 'amount allowed',
  facts: 'country, who paid, rate',
};
/** What is being edited under a line: nothing, or a set of changes to the line, or one of its items, and to other lines too. */
export interface Bench {
  line: string;
  item: string | null;
  kind: BenchKind;
  set: CorrectionSet;
  /** Other lines that are saved the same. */
  also: readonly string[];
  /** The claim's revision it was begun on: what others changed since is told before it is saved on top. */
  revision: number;
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
  return view.document.postingDate === date ? { date, assessment, digest, against: null } : null;
}

/** Whether what a bench works on is there, and may be changed: a bench that was kept may be of long ago. */
export function hasPart(view: ClaimView, { line, item }: Pick<Bench, 'line' | 'item'>): boolean {
  const found = view.document.claim.lines.find((l) => l.id === line);
  return (
    view.may.includes('correct') && found !== undefined && (!item || Boolean(found.items?.some((i) => i.id === item)))
  );
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
    case 'allowed':
      return { cut: part.cut ?? null };
    case 'facts':
      return factsOf(part as Line);
    default:
      return kind satisfies never;
  }
}

/** What finance may say of where a line was spent, who paid, and the rate; what the bank says of a card line stays out. */
function factsOf({ country, paidBy, rate }: Line): CorrectionSet {
  const own = rate?.kind === 'own' ? rate : ({ kind: 'reference' } as const);
  return { country: country ?? null, ...(paidBy === 'card' ? {} : { paidBy, rate: own }) };
}

/** A bench for a line, or for the first of its items that can be changed; a line that is whole is proposed in halves. */
export function openedBench(view: ClaimView, line: string, kind: BenchKind): Bench {
  const first = partOf(view, { line, item: null }) as Line;
  const item = kind === 'items' || kind === 'facts' ? null : (first.items?.find((i) => !i.personal)?.id ?? null);
  return benchOf(view, { line, item, kind });
}

/** A bench for a part as it is now. */
export function benchOf(view: ClaimView, at: Pick<Bench, 'line' | 'item' | 'kind'>): Bench {
  const { line, item, kind } = at;
  const set = setOf(partOf(view, at), kind);
  return {
    ...{ line, item, kind },
    set: set.split === null ? { split: HALVES } : set,
    also: [],
    revision: view.claim.revision,
  };
}

/** Whether something was typed in a bench that is not what the part says. */
export const isTyped = (view: ClaimView, bench: Bench): boolean =>
  canonical(bench.set) !== canonical(benchOf(view, bench).set);

/** The lines as they would be with a bench's changes. */
export function linesWith(view: ClaimView, bench: Bench): Line[] {
  const ids = new Set([bench.line, ...bench.also]);
  return view.document.claim.lines.filter((l) => ids.has(l.id)).map((line) => lineWith(line, bench));
}
function lineWith(line: Line, { item: itemId, set }: Bench): Line {
  if (!itemId) return { ...line, ...set };
  return { ...line, items: line.items!.map((item) => (item.id === itemId ? { ...item, ...set } : item)) };
}

/** Other lines of the same category that say the same now of the fields a bench changes; those with items have their own. */
export function linesLike(view: ClaimView, id: string, fields: readonly string[]): string[] {
  const { lines } = view.document.claim;
  const line = lines.find((l) => l.id === id)!;
  const says = (of: Line) => canonical([of.category, fields.map((f) => of[f as keyof Line] ?? null)]);
  return lines.filter((l) => l.id !== id && takesAll(l) && says(l) === says(line)).map((l) => l.id);
}
/** Whether a line is one cost of the organisation, so that what is said of another can be said of it. */
export const takesAll = (line: Line): boolean => !line.personal && !line.items?.length;

/** What is sent: a correction for each line. */
export const correctionsOf = ({ line, item, set, also }: Bench): LineCorrection[] =>
  [line, ...also].map((id) => ({ line: id, item: id === line ? item : null, set }));

/** What a part says now of the fields a bench changes, for undoing. */
function currentSet(part: Line | Item, set: CorrectionSet): CorrectionSet {
  const all: CorrectionSet = {
    coding: part.coding ?? {},
    split: part.split ?? null,
    tax: part.tax ?? [],
    cut: part.cut ?? null,
    ...('paidBy' in part ? factsOf(part) : {}),
    ...(part.category ? { category: part.category } : {}),
  };
  return Object.fromEntries(Object.entries(all).filter(([field]) => field in set));
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

/** How to take the saving of a bench back: what each part says now is said again. */
export function undoBench(view: ClaimView, bench: Bench): Undo {
  const before = correctionsOf(bench).map(({ line, item }) => ({
    ...{ line, item },
    set: currentSet(partOf(view, { line, item: item ?? null }), bench.set),
  }));
  return { label: savedWords(bench), run: (acts, revision) => acts.correct(revision, before) };
}

/** What was saved, in words. */
export const savedWords = ({ line, kind, also }: Bench): string =>
  also.length > 0 ? `${BENCH_NAMES[kind]} of ${also.length + 1} lines` : `${BENCH_NAMES[kind]} of line ${line}`;

type Cell = { line: string; kind: TieKind };

/** The fingerprint of a comparison as it is seen, and the mark that would bring back what is there now. */
export function marksOf(view: ClaimView | undefined, { line, kind, also = [] }: Cell & { also?: readonly string[] }) {
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
  // at the other lines nothing was said before
  const others = also.map((other) => ({
    line: other,
    about: view?.ties.find((t) => t.line === other && t.kind === kind)?.about ?? '',
  }));
  return {
    about,
    also: others,
    before: others.length > 0 ? { ...before, also: also.map((other) => ({ line: other })) } : before,
  };
}
