import { useCallback, useEffect, useState } from 'react';
import { useLocation } from 'react-router';

/** A short message at the foot of the page, perhaps with one thing to do about it. */
export interface Toast {
  text: string;
  tone?: 'plain' | 'bad';
  /** What it offers is there only once: it stays until somebody has dealt with it. */
  stays?: boolean;
  act?: { label: string; run: () => void };
}

const SHOWN_MS = 7000;
let show: ((toast: Toast) => void) | null = null;

export const toast = (message: Toast): void => show?.(message);

const MOST = 3;
/** The newest, and whatever stays. */
const atMost = (all: readonly Shown[]): readonly Shown[] => all.filter((t, i) => t.stays || i >= all.length - MOST);
let next = 1;
interface Shown extends Toast {
  id: number;
}

/**
 * Where messages appear, one under the other, each with its own time and its own Undo; read out as they come. What could not
 * be done is about the page it was tried on, and goes with it.
 */
export function ToastRegion() {
  const [shown, setShown] = useState<readonly Shown[]>([]);
  useEffect(() => {
    show = (message) => setShown((all) => atMost([...all, { ...message, id: next++ }]));
    return () => {
      show = null;
    };
  }, []);
  const { pathname } = useLocation();
  const [page, setPage] = useState(pathname);
  if (page !== pathname) {
    setPage(pathname);
    setShown((all) => all.filter((t) => t.stays || t.tone !== 'bad'));
  }
  const close = useCallback((id: number) => setShown((all) => all.filter((t) => t.id !== id)), []);
  return (
    <div
      role="status"
      aria-live="polite"
      className="pointer-events-none fixed inset-x-0 bottom-14 z-40 flex flex-col items-center gap-2 lg:items-start lg:pl-4"
    >
      {shown.map((one) => (
        <Message key={one.id} toast={one} onClose={close} />
      ))}
    </div>
  );
}

function Message({ toast: { id, text, tone, act, stays }, onClose }: { toast: Shown; onClose: (id: number) => void }) {
  useEffect(() => {
    if (stays) return;
    const timer = setTimeout(() => onClose(id), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [id, stays, onClose]);
  const run = () => {
    act?.run();
    onClose(id);
  };
  return (
    <div
      className={`pointer-events-auto flex max-w-[90vw] items-center lg:max-w-[36rem] gap-3 rounded-box px-4 py-2 shadow-lg ${tone === 'bad' ? 'bg-error text-error-content' : 'bg-neutral text-neutral-content'}`}
    >
      <span>{text}</span>
      {act && (
        <button type="button" className="font-semibold underline" onClick={run}>
          {act.label}
        </button>
      )}
      <button type="button" aria-label="Dismiss" onClick={() => onClose(id)}>
        ×
      </button>
    </div>
  );
}
