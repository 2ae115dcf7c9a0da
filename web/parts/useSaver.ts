import { useEffect, useRef, useState } from 'react';
import { createSaver, type Edit, type Saver, type SaverState } from './saver.ts';
import { toast } from './toast.tsx';

const AWAY_MS = 3000;

interface UseSaver<View, Shown extends View> {
  view: Shown;
  show: (next: View) => void;
  revisionOf(view: View): number;
  load(): Promise<View>;
}

/** The saver of a record that is open: its edits in turn, with what is shown now, and a warning before leaving with some unsent. */
export function useSaver<View, Shown extends View>({ view, show, revisionOf, load }: UseSaver<View, Shown>) {
  const [state, setState] = useState<SaverState>('idle');
  const saver = useRef<Saver<View>>(null);
  const latest = useRef({ view, show });
  useEffect(() => {
    latest.current = { view, show };
    saver.current?.know(view);
  });
  saver.current ??= createSaver<View>({
    view,
    revisionOf,
    load,
    show: (next) => latest.current.show(next),
    onState: setState,
    onConflict: (says, run) =>
      toast({
        text: `Somebody else changed ${says} meanwhile; theirs is shown.`,
        act: { label: 'Take mine', run },
        tone: 'bad',
      }),
    wait: () => new Promise((wake) => setTimeout(wake, AWAY_MS)),
  });
  useWarnBeforeLeaving(state !== 'idle');
  return { state, add: (edit: Edit<View>) => saver.current!.add(edit), seen: () => latest.current.view };
}

function useWarnBeforeLeaving(on: boolean): void {
  useEffect(() => {
    if (!on) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [on]);
}
