import { useEffect, useState } from 'react';

/** A short message at the foot of the page, perhaps with one thing to do about it. */
export interface Toast {
  text: string;
  tone?: 'plain' | 'bad';
  act?: { label: string; run: () => void };
}

const SHOWN_MS = 7000;
let show: ((toast: Toast) => void) | null = null;

export const toast = (message: Toast): void => show?.(message);

/** Where messages appear; read out by screen readers as they come. */
export function ToastRegion() {
  const [current, setCurrent] = useState<Toast | null>(null);
  useEffect(() => {
    show = setCurrent;
    return () => {
      show = null;
    };
  }, []);
  useEffect(() => {
    if (!current) return;
    const timer = setTimeout(() => setCurrent(null), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [current]);
  return (
    <div
      role="status"
      aria-live="polite"
      className="pointer-events-none fixed inset-x-0 bottom-14 z-40 flex justify-center"
    >
      {current && <Message toast={current} onClose={() => setCurrent(null)} />}
    </div>
  );
}

function Message({ toast: { text, tone, act }, onClose }: { toast: Toast; onClose: () => void }) {
  const run = () => {
    act?.run();
    onClose();
  };
  return (
    <div
      className={`pointer-events-auto flex max-w-[90vw] items-center gap-3 rounded-box px-4 py-2 shadow-lg ${tone === 'bad' ? 'bg-error text-error-content' : 'bg-neutral text-neutral-content'}`}
    >
      <span>{text}</span>
      {act && (
        <button type="button" className="font-semibold underline" onClick={run}>
          {act.label}
        </button>
      )}
      <button type="button" aria-label="Dismiss" onClick={onClose}>
        ×
      </button>
    </div>
  );
}
