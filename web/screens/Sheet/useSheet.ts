import { useMemo, useRef, useState } from 'react';
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
  type HistoryEvent,
} from '../../api/claims.ts';
import { toast } from '../../parts/toast.tsx';
import { correctionsOf, marksOf, postingOf, savedWords, undoBench, type Bench, type Undo } from './bench.ts';

/** Somebody else changed the claim while this person worked on it. */
export interface Stale {
  changes: HistoryEvent[];
}

/** What follows an act: how to take it back, what to close before the newer claim is shown, where to look when it was refused. */
interface After {
  undo?: Undo | ((after: ClaimAnswer) => Undo);
  then?: () => void;
  refused?: (failure: ApiError) => void;
}

type Act = (revision: number) => Promise<ClaimAnswer>;
type Mutate = ReturnType<typeof useFinanceClaim>['mutate'];

/** The state and the acts of a Sheet. Every act answers with the claim as it then is; a stale one says what changed. */
export function useSheet(number: string) {
  const { view, elsewhere, error, mutate } = useFinanceClaim(number);
  const acts = useMemo(() => claimActs(number), [number]);
  const [bench, setBench] = useState<Bench | null>(null);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const choose = (line: string) =>
    setChosen((all) => (all.includes(line) ? all.filter((l) => l !== line) : [...all, line]));
  const { run, undo, ...running } = useRunning(view, acts, mutate);

  const saveBench = async (): Promise<void> => {
    if (!view || !bench) return;
    const after = { undo: undoBench(view, bench), then: () => setBench(null) };
    const corrections = correctionsOf(bench);
    await run(`Saved: ${savedWords(bench)}`, (revision) => acts.correct(revision, corrections), after);
  };
  const mark = (cell: Marked, to: MarkWish, reason?: string, then?: () => void) => {
    const { act, undo } = marking(view, cell, to, reason);
    const more = cell.also?.length ? ` and ${cell.also.length} more` : '';
    const done = `Line ${cell.line} ${cell.kind}${more}: ${MARKED[to]}`;
    return run(done, (revision) => act(acts, revision), { undo, ...(then ? { then } : {}) });
  };
  const posting = usePosting(number, view);
  return {
    view,
    elsewhere,
    error,
    reload: mutate,
    acts,
    bench,
    setBench,
    chosen,
    choose,
    run,
    saveBench,
    mark,
    undo,
    ...running,
    ...posting,
  };
}
export type SheetState = ReturnType<typeof useSheet>;

type Marked = { line: string; kind: TieKind; also?: readonly string[] };
type MarkWish = 'seen' | 'waived' | 'none';
const MARKED: Record<MarkWish, string> = { seen: 'ticked as seen', waived: 'waived', none: 'mark taken back' };

/** Marking a comparison as it is seen now, and what takes that back. */
function marking(view: ClaimView | undefined, cell: Marked, to: MarkWish, reason: string | undefined) {
  const { about, also, before } = marksOf(view, cell);
  const { line, kind } = cell;
  const seen = {
    ...{ line, kind, also },
    ...(about && to !== 'none' ? { about } : {}),
    ...(reason ? { reason } : {}),
  };
  return {
    act: (acts: ClaimActs, revision: number) => acts.mark({ revision, ...seen, mark: to }),
    undo: {
      label: `line ${cell.line} ${cell.kind}`,
      run: (acts: ClaimActs, revision: number) => acts.mark({ revision, ...before }),
    },
  };
}

/** Doing acts one at a time on the revision that is shown, with what each needs to be taken back. */
function useRunning(view: ClaimView | undefined, acts: ClaimActs, mutate: Mutate) {
  const [stale, setStale] = useState<Stale | null>(null);
  const [busy, setBusy] = useState(false);
  const undos = useRef<Undo[]>([]);

  const run = async (done: string, act: Act, { undo, then, refused }: After = {}): Promise<void> => {
    if (!view) return;
    setBusy(true);
    try {
      const next = await act(view.claim.revision);
      then?.();
      setStale(null);
      if (undo) undos.current.push(typeof undo === 'function' ? undo(next) : undo);
      toast({ text: done });
      await mutate(next, { revalidate: false });
    } catch (failure) {
      const changes = changesOf(failure);
      if (!changes) {
        // what a refusal found is on the newer claim
        if (failure instanceof ApiError && refused) {
          await mutate();
          refused(failure);
        }
        return toast({ text: (failure as Error).message, tone: 'bad' });
      }
      // the newer claim comes first: what is saved again is saved on top of it
      await mutate();
      setStale({ changes });
    } finally {
      setBusy(false);
    }
  };
  const undo = async (): Promise<void> => {
    const last = undos.current.pop();
    if (!last) return toast({ text: 'There is nothing to undo here.' });
    await run(`Undone: ${last.label}`, (revision) => last.run(acts, revision));
  };
  return { stale, setStale, busy, run, undo };
}

/** What changed meanwhile, when an act was refused because of it. */
const changesOf = (failure: unknown): HistoryEvent[] | null =>
  failure instanceof ApiError && failure.code === 'stale' ? (failure.numbers.changes as HistoryEvent[]) : null;

/** The journal of the posting date that is asked for; unasked, of the one that is proposed now where the claim was last assessed for another. */
function usePosting(number: string, view: ClaimView | undefined) {
  const [postingDate, setPostingDate] = useState<string | null>(null);
  const proposed = view && view.proposedDate !== view.document.postingDate ? view.proposedDate : null;
  const asked = postingDate === null ? proposed : isIsoDate(postingDate) ? postingDate : null;
  const preview = usePostingPreview(number, asked);
  const posting = view && asked ? postingOf(view, asked, preview.data) : null;
  return { postingDate, setPostingDate, posting, previewAgain: preview.mutate };
}
