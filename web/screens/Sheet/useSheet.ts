import { useCallback, useMemo, useRef, useState } from 'react';
import type { Line, Item } from '../../../core/documents/case.schema.ts';
import type { TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import { isIsoDate } from '../../../core/numbers/isoDate.ts';
import { ApiError } from '../../api/client.ts';
import {
  claimActs,
  useFinanceClaim,
  usePostingPreview,
  type ClaimActs,
  type ClaimAnswer,
  type ClaimView,
  type CorrectionSet,
  type HistoryEvent,
  type JournalPreview,
} from '../../api/claims.ts';
import { toast } from '../../parts/toast.tsx';

export type BenchKind = 'split' | 'coding' | 'tax' | 'items';
/** What is being edited under a line: nothing, or a set of changes to the line or one of its items. */
export interface Bench {
  line: string;
  item: string | null;
  kind: BenchKind;
  set: CorrectionSet;
}
/** Somebody else changed the claim while this person worked on it. */
export interface Stale {
  changes: HistoryEvent[];
}
interface Undo {
  label: string;
  run: (acts: ClaimActs, revision: number) => Promise<ClaimAnswer>;
}

/** What follows an act that was done: how to take it back, and what to close before the newer claim is shown. */
interface After {
  undo?: Undo;
  then?: () => void;
}

/** The state and the acts of a Sheet. Every act answers with the claim as it then is; a stale one says what changed. */
export function useSheet(number: string) {
  const { view, elsewhere, error, mutate } = useFinanceClaim(number);
  const acts = useMemo(() => claimActs(number), [number]);
  const [bench, setBench] = useState<Bench | null>(null);
  const [stale, setStale] = useState<Stale | null>(null);
  const [busy, setBusy] = useState(false);
  const [postingDate, setPostingDate] = useState<string | null>(null);
  const asked = postingDate !== null && isIsoDate(postingDate) ? postingDate : null;
  const preview = usePostingPreview(number, asked);
  const posting = view && asked ? postingOf(view, asked, preview.data) : null;
  const undos = useRef<Undo[]>([]);

  const run = useCallback(
    async (
      done: string,
      act: (revision: number) => Promise<ClaimAnswer>,
      { undo, then }: After = {},
    ): Promise<void> => {
      if (!view) return;
      setBusy(true);
      try {
        const next = await act(view.claim.revision);
        then?.();
        setStale(null);
        if (undo) undos.current.push(undo);
        toast({ text: done });
        await mutate(next, { revalidate: false });
      } catch (failure) {
        if (failure instanceof ApiError && failure.code === 'stale') {
          setStale({ changes: failure.numbers.changes as HistoryEvent[] });
          await mutate();
        } else toast({ text: (failure as Error).message, tone: 'bad' });
      } finally {
        setBusy(false);
      }
    },
    [view, mutate],
  );

  const saveBench = async (): Promise<void> => {
    if (!view || !bench) return;
    const { line, item, kind, set } = bench;
    const before = currentSet(view, bench);
    const undo = {
      label: `${kind} of line ${line}`,
      run: (a: ClaimActs, revision: number) => a.correct(line, { revision, item, set: before }),
    };
    const after = { undo, then: () => setBench(null) };
    await run(`Line ${line}: ${kind} saved`, (revision) => acts.correct(line, { revision, item, set }), after);
  };

  const mark = (
    cell: { line: string; kind: TieKind },
    to: 'seen' | 'waived' | 'none',
    reason?: string,
    then?: () => void,
  ) => {
    const words = { seen: 'ticked as seen', waived: 'waived', none: 'mark taken back' }[to];
    const same = (x: { line: string; kind: TieKind }) => x.line === cell.line && x.kind === cell.kind;
    const earlier = view?.marks.find(same);
    const about = view?.ties.find(same)?.about;
    const seen = { ...cell, ...(about && to !== 'none' ? { about } : {}) };
    const before = {
      ...cell,
      ...(earlier && about ? { about } : {}),
      mark: earlier?.mark ?? ('none' as const),
      ...(earlier?.reason ? { reason: earlier.reason } : {}),
    };
    const undo = {
      label: `line ${cell.line} ${cell.kind}`,
      run: (a: ClaimActs, revision: number) => a.mark({ revision, ...before }),
    };
    return run(
      `Line ${cell.line} ${cell.kind}: ${words}`,
      (revision) => acts.mark({ revision, ...seen, mark: to, ...(reason ? { reason } : {}) }),
      { undo, ...(then ? { then } : {}) },
    );
  };

  const undo = async (): Promise<void> => {
    const last = undos.current.pop();
    if (!last) return toast({ text: 'There is nothing to undo here.' });
    await run(`Undone: ${last.label}`, (revision) => last.run(acts, revision));
  };

  return {
    view,
    elsewhere,
    error,
    reload: mutate,
    acts,
    bench,
    setBench,
    stale,
    setStale,
    busy,
    run,
    saveBench,
    mark,
    undo,
    postingDate,
    setPostingDate,
    posting,
    previewAgain: preview.mutate,
  };
}
export type SheetState = ReturnType<typeof useSheet>;

/** The journal that would be posted on a date: its preview once it is there, until then the one that was kept for that date. */
function postingOf(view: ClaimView, date: string, preview: JournalPreview | undefined): JournalPreview | null {
  if (preview?.date === date) return preview;
  const { assessment, digest } = view;
  return view.document.postingDate === date ? { date, assessment, digest } : null;
}

/** The line or item a bench works on. */
export function partOf(view: ClaimView, at: Pick<Bench, 'line' | 'item'>): Line | Item {
  const line = view.document.claim.lines.find((l) => l.id === at.line)!;
  return at.item ? line.items!.find((i) => i.id === at.item)! : line;
}

/** The line as it would be with a bench's changes. */
export function lineWith(view: ClaimView, { line: id, item: itemId, set }: Bench): Line {
  const line = view.document.claim.lines.find((l) => l.id === id)!;
  if (!itemId) return { ...line, ...set };
  return { ...line, items: line.items!.map((item) => (item.id === itemId ? { ...item, ...set } : item)) };
}

/** What the part says now of the fields a bench changes, for undoing. */
function currentSet(view: ClaimView, bench: Bench): CorrectionSet {
  const part = partOf(view, bench);
  const all: CorrectionSet = {
    coding: part.coding ?? {},
    split: part.split ?? null,
    tax: part.tax ?? [],
    ...(part.category ? { category: part.category } : {}),
  };
  return Object.fromEntries(Object.entries(all).filter(([field]) => field in bench.set));
}

/** How to take the clearing of a claim back. */
export function undoClear(view: ClaimView) {
  return {
    label: `clearing of ${view.claim.number}`,
    run: (acts: ClaimActs, revision: number) => acts.plain('reopen', revision),
  };
}
