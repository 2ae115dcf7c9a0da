import { useEffect, useSyncExternalStore } from 'react';
import { isReachable, onReach } from '../api/client.ts';
import { ping } from '../api/session.ts';
import { useAllUnsaved } from './unsaved.ts';

const ASK_MS = 5000;

/** Says, on every page, that the server does not answer, and what waits for it; asks again until it does. */
export function NotReached() {
  const reachable = useSyncExternalStore(onReach, isReachable);
  const waits = useAllUnsaved().filter((what) => !what.show).length;
  useEffect(() => {
    if (reachable) return;
    const timer = setInterval(() => void ping().catch(() => undefined), ASK_MS);
    return () => clearInterval(timer);
  }, [reachable]);
  if (reachable) return null;
  return (
    <p role="status" className="border-b border-base-300 bg-warning px-4 py-1.5 text-sm text-warning-content">
      The server does not answer. What is shown may be older
      {waits > 0 ? '; what you changed waits here and is sent as soon as it answers.' : '; what you type is kept.'}
    </p>
  );
}
