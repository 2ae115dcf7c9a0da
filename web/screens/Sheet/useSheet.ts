import { useEffect, useMemo, useRef, useState } from 'react';
import type { TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import { isIsoDate } from '../../../core/numbers/isoDate.ts';
import { ApiError } from '../../api/client.ts';
import {
  claimActs,
  isFinance,
  useFinanceClaim,
  usePostingPreview,
  type ClaimActs,
  type ClaimAnswer,
  type ClaimView,
  type FinanceAnswer,
  type HistoryEvent,
} from '../../api/claims.ts';
import { toast } from '../../parts/toast.tsx';
import { useKept } from '../../parts/kept.ts';
import { sameClaim, sameLines, type Looked } from './stands.ts';
import {
  correctionsOf,
  hasPart,
  isTyped,
  marksOf,
  postingOf,
  savedWords,
  undoBench,
  type Bench,
  type Undo,
} from './bench.ts';

/** Somebody else changed the claim while this person worked on it. */
export interface Stale {
  changes: HistoryEvent[];
}

/** What follows an act: how to take it back, what to close before the newer claim is shown, where to look when it was refused. */
interface After {
  undo?: Undo | ((after: ClaimAnswer) => Undo);
  then?: () => void;
  refused?: (failure: ApiError) => void;
  /** Whether the act still means what it meant, when somebody changed the claim before it; otherwise it is shown and pressed again. */
  stands?: Stands;
  /** What the act was begun on, where that is not what is shown. */
  begun?: Begun;
  /** Told of the claim as others made it, once what they changed is said. */
  told?: (now: Looked & Revised) => void;
  /** It decides about the whole claim: not while something is typed and not saved. */
  whole?: true;
}
type Stands = (before: Looked, after: Looked) => boolean;
type Revised = { claim: { revision: number } };
/** A revision, and the claim as it then was where that is still known. */
interface Begun {
  revision: number;
  seen: Looked | null;
}

type Act = (revision: number) => Promise<ClaimAnswer>;
type Mutate = ReturnType<typeof useFinanceClaim>['mutate'];

/** The state and the acts of a Sheet. Every act answers with the claim as it then is; a stale one says what changed. */
export function useSheet(number: string) {
  const { view, elsewhere, error, mutate } = useFinanceClaim(number);
  const acts = useMemo(() => claimActs(number), [number]);
  const { bench, setBench, begun } = useBench(view);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const choose = (line: string) =>
    setChosen((all) => (all.includes(line) ? all.filter((l) => l !== line) : [...all, line]));
  const { run, undo, ...running } = useRunning(
    view,
    acts,
    mutate,
    view && bench && isTyped(view, bench) ? bench : null,
  );

  const saveBench = async (): Promise<void> => {
    if (!view || !bench) return;
    const corrections = correctionsOf(bench);
    await run(`Saved: ${savedWords(bench)}`, (revision) => acts.correct(revision, corrections), {
      undo: undoBench(view, bench),
      then: () => setBench(null),
      stands: sameLines(corrections.map((c) => c.line)),
      begun: begun(bench),
      // what is saved again is saved on top of what was told
      told: (now) => setBench({ ...bench, revision: now.claim.revision }),
    });
  };
  const mark = (cell: Marked, to: MarkWish, reason?: string, then?: () => void) => {
    const { act, undo } = marking(view, cell, to, reason);
    const more = cell.also?.length ? ` and ${cell.also.length} more` : '';
    const done = `Line ${cell.line} ${cell.kind}${more}: ${MARKED[to]}`;
    // the server compares what was seen of the comparison with what it is
    const stands = sameLines([cell.line, ...(cell.also ?? [])]);
    return run(done, (revision) => act(acts, revision), { undo, stands, ...(then ? { then } : {}) });
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

/** What is typed under a line, kept on the device, and the claim it was begun on. */
function useBench(view: ClaimView | undefined) {
  const [kept, keepBench, dropBench] = useKept<Bench | null>('bench', null);
  const seen = useRef<ClaimView>(null);
  const bench = kept && view && hasPart(view, kept) ? kept : null;
  useEffect(() => {
    if (view && bench?.revision === view.claim.revision) seen.current = view;
  }, [view, bench?.revision]);
  const setBench = (next: Bench | null) => (next === null ? dropBench() : keepBench(next));
  const begun = ({ revision }: Bench): Begun => ({
    revision,
    seen: seen.current?.claim.revision === revision ? seen.current : null,
  });
  return { bench, setBench, begun };
}

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
function useRunning(view: ClaimView | undefined, acts: ClaimActs, mutate: Mutate, typed: Bench | null) {
  const [stale, setStale] = useState<Stale | null>(null);
  const [busy, setBusy] = useState(false);
  const undos = useRef<Undo[]>([]);

  const run = async (
    done: string,
    act: Act,
    { undo, then, refused, told, whole, begun, stands = sameClaim }: After = {},
  ): Promise<void> => {
    if (!view) return;
    if (whole && typed) return toast({ text: notSaved(typed), tone: 'bad' });
    setBusy(true);
    try {
      const next = await actAgain(act, begun ?? { revision: view.claim.revision, seen: view }, stands, mutate);
      then?.();
      setStale(null);
      if (undo) undos.current.push(typeof undo === 'function' ? undo(next) : undo);
      toast({ text: done });
      await mutate(next, { revalidate: false });
    } catch (failure) {
      if (failure instanceof Meanwhile) {
        if (failure.now) told?.(failure.now);
        return setStale({ changes: failure.changes });
      }
      // what a refusal found is on the newer claim, and is looked at before it is tried again
      if (failure instanceof ApiError && (refused ?? failure.status === 409)) await mutate();
      if (failure instanceof ApiError) refused?.(failure);
      toast({ text: (failure as Error).message, tone: 'bad' });
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

const notSaved = (bench: Bench): string =>
  `The ${savedWords(bench)} is typed and not saved. Save it or close it first.`;

/** Somebody changed what an act depends on: what they changed, and the claim as it is now. */
class Meanwhile extends Error {
  constructor(
    readonly changes: HistoryEvent[],
    readonly now: FinanceAnswer | null,
  ) {
    super('The claim was changed meanwhile.');
  }
}

/** How often an act is done on what somebody else made of the claim meanwhile. */
const MOST_TIMES = 3;

/** Acts on what it was begun on; on what somebody else made of it meanwhile as well, as long as that is nothing the act depends on. */
async function actAgain(act: Act, { revision: begun, seen }: Begun, stands: Stands, mutate: Mutate) {
  let revision = begun;
  for (let times = 1; ; times += 1)
    try {
      return await act(revision);
    } catch (failure) {
      const changes = changesOf(failure);
      if (!changes) throw failure;
      const answer = await mutate();
      const now = answer && isFinance(answer) ? answer : null;
      if (!now || !seen || times === MOST_TIMES || !stands(seen, now)) throw new Meanwhile(changes, now);
      revision = now.claim.revision;
    }
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
