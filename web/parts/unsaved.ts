import { useEffect, useRef, useSyncExternalStore } from 'react';

/** Something that was typed and is not on the server. */
export interface Unsaved {
  /** What it is, in words: "Amount of line 3". */
  says: string;
  /** Sends it now, where it would have been sent later. */
  flush?(): void;
  /** Puts the cursor where it was typed. */
  show?(): void;
  /** Whether it is kept on the device, so that the page may be left. */
  kept?: boolean;
}

const all = new Set<Unsaved>();
const listeners = new Set<() => void>();
let shown: readonly Unsaved[] = [];

/** Holds something as not saved until it is let go of. */
export function holdUnsaved(what: Unsaved): () => void {
  all.add(what);
  tell();
  return () => {
    if (all.delete(what)) tell();
  };
}

/** Everything that was typed in this tab and is not on the server, on whatever page. */
export const unsaved = (): readonly Unsaved[] => shown;
export const flushUnsaved = (): void => [...all].forEach((what) => what.flush?.());

function tell(): void {
  shown = [...all];
  listeners.forEach((listener) => listener());
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
export const useAllUnsaved = (): readonly Unsaved[] => useSyncExternalStore(subscribe, unsaved);

/** Holds what a field says as not saved while `on`. */
export function useUnsaved(on: boolean, { says, kept = false, ...acts }: Unsaved): void {
  const latest = useRef<Pick<Unsaved, 'flush' | 'show'>>(acts);
  const isField = acts.show !== undefined;
  useEffect(() => {
    latest.current = acts;
  });
  useEffect(() => {
    if (!on) return;
    // a form is no field of the record it acts on: what acts is not held back by itself
    const show = isField ? { show: () => latest.current.show?.() } : {};
    return holdUnsaved({ says, kept, flush: () => latest.current.flush?.(), ...show });
  }, [on, says, kept, isField]);
}

/** Lets go of everything: whoever signs out was asked. */
export function forgetUnsaved(): void {
  all.clear();
  tell();
}

/** Whoever leaves is asked, as long as something is neither on the server nor kept here. */
export function warnBeforeLeaving(): () => void {
  const warn = (event: BeforeUnloadEvent) => {
    flushUnsaved();
    if ([...all].some((what) => !what.kept)) event.preventDefault();
  };
  window.addEventListener('beforeunload', warn);
  return () => window.removeEventListener('beforeunload', warn);
}
