import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { onSignedIn } from '../api/client.ts';
import { createSaver, type Edit, type Saver, type SaverState } from './saver.ts';
import { keepQueue, takeLeft, type KeptEdit } from './keptQueue.ts';
import { useTabs } from './useTabs.ts';
import { toast } from './toast.tsx';
import { flushUnsaved, holdUnsaved, unsaved, type Unsaved } from './unsaved.ts';

/** How long it takes until the server is asked again, in milliseconds, unless there is a sign before. */
const AGAIN_MS = { away: 3000, ended: 20_000 };

interface UseSaver<View, Shown extends View> {
  /** What it is, for who looks at another page while something of it waits: "Claim C-1001". */
  name: string;
  view: Shown;
  show: (next: View) => void;
  revisionOf(view: View): number;
  load(): Promise<View>;
  /** An edit from what was kept of it. */
  again?(what: unknown): Edit<View>;
}

/**
 * The saver of a record that is open: its edits in turn, with what is shown now. It goes on when the page is left, and until
 * then what waits counts as not saved.
 */
export function useSaver<View, Shown extends View>({
  name,
  view,
  show,
  revisionOf,
  load,
  again,
}: UseSaver<View, Shown>) {
  const [state, setState] = useState<SaverState>('idle');
  const saver = useRef<Saver<View>>(null);
  const latest = useRef({ view, show });
  useEffect(() => {
    latest.current = { view, show };
    saver.current?.know(view);
  });
  useTabs(name, revisionOf(view), () => void load().then(show, () => undefined));
  const [held] = useState(() => holding(name, setState));
  saver.current ??= createSaver<View>({
    view,
    revisionOf,
    load,
    show: (next) => latest.current.show(next),
    onState: held.onState,
    onQueue(edits) {
      held.what.kept = edits.every((edit) => edit.kept !== undefined);
      keepQueue(name, edits.flatMap(keptOf));
    },
    onConflict: (says, run) =>
      toast({
        text: `Somebody else changed ${says} meanwhile; theirs is shown.`,
        act: { label: 'Take mine', run },
        tone: 'bad',
        stays: true,
      }),
    onGone: (says, act) => toast({ text: `Somebody else took ${says} away meanwhile.`, act, tone: 'bad', stays: true }),
    wait: (now) => (now === 'away' || now === 'ended' ? sign(AGAIN_MS[now]) : Promise.resolve()),
  });
  const take = useEffectEvent((what: unknown) => again?.(what));
  useEffect(() => {
    const leaving = new AbortController();
    takeLeft(name, leaving.signal, ({ what, ...sent }) => {
      const edit = take(what);
      // it was typed before this page was loaded, so it is in no field any more
      const done = (error: Error | null) =>
        error && toast({ text: `Not saved: ${edit!.says}. ${error.message}`, tone: 'bad', stays: true });
      if (edit) saver.current!.add({ ...edit, ...sent, done });
    });
    return () => leaving.abort();
  }, [name]);
  return {
    state,
    add: (edit: Edit<View>) => saver.current!.add(edit),
    act: (send: (revision: number) => Promise<View>) => {
      flushUnsaved();
      return saver.current!.act((revision) => {
        refuseTyped();
        return send(revision);
      });
    },
    seen: () => latest.current.view,
  };
}

const keptOf = <View>({ kept, over, sentFor = null }: Edit<View>): KeptEdit[] =>
  kept === undefined ? [] : [{ what: kept, ...(over === undefined ? {} : { over }), sentFor }];

/** An act is not about what is still in a field: whoever wants it is led there. */
function refuseTyped(): void {
  const field = unsaved().find((what) => what.show);
  if (!field) return;
  field.show!();
  throw new Error(`${field.says} is typed and not saved. Finish it, or take it back with Escape, then try again.`);
}

/** Tells the state, and counts the record as not saved until it is idle. */
function holding(name: string, tell: (state: SaverState) => void) {
  const what: Unsaved = { says: name };
  let release: (() => void) | null = null;
  const onState = (state: SaverState) => {
    if (state === 'idle') {
      release?.();
      release = null;
    } else release ??= holdUnsaved(what);
    tell(state);
  };
  return { what, onState };
}

/** Waits a while, or until the browser is on the network again, or somebody has signed in. */
const sign = (most: number): Promise<void> =>
  new Promise((wake) => {
    const ended = new AbortController();
    const done = () => {
      ended.abort();
      clearTimeout(timer);
      forget();
      wake();
    };
    const timer = setTimeout(done, most);
    const forget = onSignedIn(done);
    window.addEventListener('online', done, { signal: ended.signal });
  });
