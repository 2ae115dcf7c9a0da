import { useCallback, useMemo, useRef, useState } from 'react';
import type { TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import { isIsoDate } from '../../../core/numbers/isoDate.ts';
import { ApiError } from '../../api/client.ts';
import {
  claimActs,
  useFinanceClaim,
  usePostingPreview,
  type ClaimActs,
  type ClaimAnswer,
  type HistoryEvent,
} from '../../api/claims.ts';
import { toast } from '../../parts/toast.tsx';
import { marksOf, postingOf, undoBench, type Bench, type Undo } from './bench.ts';

/** Somebody else changed the claim while this person worked on it. */
export interface Stale {
  changes: HistoryEvent[];
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
    const after = { undo: undoBench(view, bench), then: () => setBench(null) };
    await run(`Line ${line}: ${kind} saved`, (revision) => acts.correct(line, { revision, item, set }), after);
  };

  const mark = (
    cell: { line: string; kind: TieKind },
    to: 'seen' | 'waived' | 'none',
    reason?: string,
    then?: () => void,
  ) => {
    const words = { seen: 'ticked as seen', waived: 'waived', none: 'mark taken back' }[to];
    const { about, before } = marksOf(view, cell);
    const seen = { ...cell, ...(about && to !== 'none' ? { about } : {}) };
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
