import { useEffect } from 'react';
import { wake } from '../api/messages.ts';

const NAME = 'ebbet-live';
/** A stream the server refused is not opened again by the browser itself. */
const AGAIN_MS = 15_000;

/**
 * Hears from the server when something changes for the person. Browsers allow few connections to one server, so one tab holds
 * the stream and tells the others; when it is closed, the next one takes over.
 */
export function useLive(): void {
  useEffect(() => {
    const ended = new AbortController();
    const tabs = new BroadcastChannel(NAME);
    tabs.onmessage = wake;
    const tell = () => {
      wake();
      tabs.postMessage(null);
    };
    const hold = () => streamUntil(ended.signal, tell);
    // outside secure origins there are no locks: then each tab has its own
    if (navigator.locks) void navigator.locks.request(NAME, { signal: ended.signal }, hold).catch(() => undefined);
    else void hold();
    return () => {
      ended.abort();
      tabs.close();
    };
  }, []);
}

function streamUntil(signal: AbortSignal, onChange: () => void): Promise<void> {
  return new Promise((resolve) => {
    let source: EventSource | null = null;
    let later: ReturnType<typeof setTimeout> | undefined;
    const open = () => {
      source = new EventSource('/api/messages/live');
      source.addEventListener('change', onChange);
      source.onerror = () => {
        if (source?.readyState === EventSource.CLOSED) later = setTimeout(open, AGAIN_MS);
      };
    };
    signal.addEventListener('abort', () => {
      clearTimeout(later);
      source?.close();
      resolve();
    });
    if (!signal.aborted) open();
  });
}
